import type { MadeSound } from '../document/sound';
import type { Recipe } from './recipe';
import * as bars from './recipes/bars';
import * as cymbals from './recipes/cymbals';
import * as hats from './recipes/hats';
import * as kicks from './recipes/kicks';
import * as percussion from './recipes/percussion';
import * as snares from './recipes/snares';
import * as toms from './recipes/toms';

/** How each sound that the engine makes is made. */
export const RECIPES: Record<MadeSound, Recipe> = {
  ...kicks,
  ...snares,
  ...hats,
  ...toms,
  ...cymbals,
  ...bars,
  ...percussion,
};
