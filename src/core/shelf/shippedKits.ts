import { madeKit, POLISHED_FLOOR, type KitDesign } from '../document/kits';
import type { Kit } from '../document/kit';
import * as designs from './kitDesigns';
import type { Shelved } from './shelved';

function shipped(name: string, tempo: number, tags: string[], design: KitDesign | Kit): Shelved {
  const kit = 'pads' in design ? (design as Kit) : madeKit(name, design);
  return { id: name.toLowerCase().replace(/ /g, '-'), name, tags, tempo, kit };
}

/** The kits that ship with the app, all of them made here. */
export const SHIPPED_KITS: readonly Shelved[] = [
  shipped('Polished Floor', 112, ['dry', 'round', 'acoustic', 'all-round'], POLISHED_FLOOR),
  shipped('Ticket Booth', 126, ['dry', 'tight', 'short', 'bright', 'acoustic'], designs.TICKET_BOOTH),
  shipped('Canal Brick', 84, ['dark', 'low', 'long', 'roomy'], designs.CANAL_BRICK),
  shipped('Kiosk Radio', 92, ['dirty', 'narrow', 'lo-fi', 'short', 'electronic'], designs.KIOSK_RADIO),
  shipped('Coat Check', 76, ['soft', 'warm', 'dark', 'quiet', 'acoustic'], designs.COAT_CHECK),
  shipped('Rental Skates', 104, ['rattling', 'loose', 'dirty', 'found'], designs.RENTAL_SKATES),
  shipped('Neon Sign', 118, ['electronic', 'long', 'smooth', 'bright'], designs.NEON_SIGN),
  shipped('Night Bus', 134, ['electronic', 'hard', 'driven', 'short'], designs.NIGHT_BUS),
  shipped('Chestnut Cart', 98, ['wooden', 'hands', 'warm', 'percussion'], designs.CHESTNUT_CART),
  shipped('Scaffold', 140, ['metal', 'ringing', 'hard', 'found'], designs.SCAFFOLD),
  shipped('Marble Stairs', 72, ['huge', 'roomy', 'long', 'orchestral'], designs.MARBLE_STAIRS),
  shipped('Pocket Change', 122, ['tiny', 'high', 'delicate', 'found'], designs.POCKET_CHANGE),
];
