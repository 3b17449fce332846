import type { OpenSet } from '@/core/document/set';
import { setLoaded } from '@/store/openSlice';
import { noticed, saveTroubled, tabChanged } from '@/store/sessionSlice';
import type { Store } from '@/store/store';
import { setAside } from './aside';
import { SetPieces } from './pieces';
import { OTHER_PREFIX, SET_KEY, storageTrouble, type Storage } from './records';
import { Saver, type Companion, type Saved } from './saver';
import { findSet, readStored, removeSet, textOf, type StoredSet } from './storedSet';
import { Versions } from './versions';

const LOCK = 'chaffinch set';
/** A tab that does not hand over by then is frozen, and loses the set without being asked. */
const ANSWERS_BY_MS = 1500;

/** Pause after an attempt to store that has failed. */
const AGAIN_MS = 5000;

/** What tabs tell each other. */
export type TabMessage =
  { kind: 'opened' } | { kind: 'saved' } | { kind: 'handOver'; to: string } | { kind: 'handedOver'; to: string };

/** The part of a BroadcastChannel that is used. */
export interface TabChannel {
  postMessage(message: TabMessage): void;
  // As BroadcastChannel declares it, of any message.
  onmessage: ((event: MessageEvent) => void) | null;
}

interface Browser {
  storage: Storage;
  /** Undefined where the browser has none: then every tab saves, as in a browser with one tab. */
  locks: Pick<LockManager, 'request'> | undefined;
  channel: TabChannel;
  now?: () => Date;
}

/**
 * Of several tabs one owns the set and saves it. The others follow what it saves, until they are edited on purpose: then their set is
 * kept aside, under a key of their own. A tab takes over when it is asked to, or when the owner is gone.
 */
export class Tabs {
  private readonly id = Math.random().toString(36).slice(2);
  private saver: Saver | null = null;
  /** Of the tab that owns the set. */
  versions: Versions | null = null;
  private owns = false;
  /** As another tab: the set that the owner saved last, and the pieces in which it lies. */
  private followed: OpenSet['set'] | null;
  private pieces = new SetPieces(SET_KEY);
  private openStored = () => Promise.resolve<SetPieces | null>(null);
  private opening: Promise<SetPieces | null> | null = null;
  private asideKey = '';
  private isTaking = false;
  /** It has asked for the lock, and stands in the browser's queue. */
  private isWaiting = false;
  private answered: (() => void) | null = null;
  private release = () => {};

  constructor(
    private readonly store: Store,
    private readonly browser: Browser,
    /** What is stored with the set, by the tab that owns it. */
    private readonly companions: readonly Companion[] = [],
  ) {
    this.followed = this.set;
  }

  /**
   * Finds out which tab this is, and opens what is stored: as the owner, so that nobody writes meanwhile.
   * @param open opens the stored set; answers with its pieces, or null if nothing may be saved
   */
  async begin(open: () => Promise<SetPieces | null>): Promise<void> {
    const { locks, channel } = this.browser;
    this.openStored = open;
    const owns = locks ? await this.ownIfFree(locks) : true;
    const pieces = await this.opened();
    if (this.owns || !pieces) return;
    if (owns) return this.own(this.openSet, pieces);
    channel.postMessage({ kind: 'opened' });
    for (const companion of this.companions) companion.lose();
    this.follow();
  }

  /** The stored set is open: once, however often it is asked. */
  private opened(): Promise<SetPieces | null> {
    this.opening ??= this.openStored().then((pieces) => {
      this.followed = this.set;
      this.browser.channel.onmessage = ({ data }) => this.hear(data as TabMessage);
      return pieces;
    });
    return this.opening;
  }

  /** Owns the set from now on, if no other tab does. */
  private ownIfFree(locks: NonNullable<Browser['locks']>): Promise<boolean> {
    return new Promise((decided) => {
      let isRobbed = false;
      const asked = locks.request(LOCK, { ifAvailable: true }, async (lock) => {
        const pieces = lock && (await this.opened());
        if (!pieces || isRobbed) return decided(false);
        this.own(this.openSet, pieces);
        decided(true);
        return this.untilLost();
      });
      this.whenLost(asked, () => {
        isRobbed = true;
        decided(false);
      });
    });
  }

  /** The saver, of whichever kind: for what must be written as the page goes. */
  saveNow(): void {
    void this.saver?.saveNow(true);
  }

  /** Whether leaving the page would lose something. */
  get isTroubled(): boolean {
    return this.saver?.isTroubled === true;
  }

  /** What was stored is gone: it is written again. */
  saveAgain(): void {
    this.versions?.lost();
    if (this.owns || this.isEdited) this.saver?.saveAgain();
  }

  /** Takes the set over from the tab that owns it: its newest is opened here, unless this one was edited, and saved from now on. */
  async takeOver(): Promise<void> {
    const { locks, channel } = this.browser;
    if (this.owns || this.isTaking || !locks) return;
    this.isTaking = true;
    await new Promise<void>((done) => {
      this.answered = done;
      setTimeout(done, ANSWERS_BY_MS);
      channel.postMessage({ kind: 'handOver', to: this.id });
    });
    this.answered = null;
    this.hold({ steal: true }, async (isStolen) => {
      await this.ownWhatIsStored(isStolen);
      this.isTaking = false;
    });
  }

  private hear(message: TabMessage): void {
    if (message.kind === 'opened' && this.owns) {
      this.store.dispatch(noticed('Chaffinch is open in another tab, too. This one saves the set.'));
    } else if (message.kind === 'saved' && !this.owns) {
      void this.followStored();
    } else if (message.kind === 'handOver' && this.owns) {
      void this.handOver(message.to);
    } else if (message.kind === 'handedOver' && message.to === this.id) {
      this.answered?.();
    }
  }

  /** All is saved, then the other one is told that it can have it. What cannot be saved is kept here, as an edit. */
  private async handOver(to: string): Promise<void> {
    const { saver } = this;
    const set = this.set;
    const saved = await saver!.saveNow();
    if (this.saver !== saver) return; // asked twice
    this.lose(saved ? set : null);
    this.browser.channel.postMessage({ kind: 'handedOver', to });
  }

  // --- which tab this is ------------------------------------------------------------------------------------

  /**
   * Saves from now on, over what is stored; null for what has to be written whatever is stored.
   * @param pieces in which the set is stored
   */
  private own(stored: Pick<Saved, 'set' | 'stage'>, pieces = new SetPieces(SET_KEY)): void {
    this.owns = true;
    this.saver?.end();
    const { storage, channel } = this.browser;
    const onSaved = () => channel.postMessage({ kind: 'saved' });
    const { companions } = this;
    for (const companion of companions) companion.own(pieces);
    this.saver = new Saver(this.store, storage, pieces, stored, { companions, onSaved });
    this.versions = new Versions(storage, pieces);
    this.store.dispatch(tabChanged('owner'));
    // What the last owner saved as it went, nobody could be told of.
    if (stored.set !== null) channel.postMessage({ kind: 'saved' });
  }

  /** Follows the owner, and waits until it is gone. */
  private follow(): void {
    this.store.dispatch(tabChanged('follower'));
    this.keepAside();
    this.waitForLock();
  }

  /** Owns the set once no other tab does. */
  private waitForLock(): void {
    if (this.isWaiting) return;
    this.isWaiting = true;
    this.hold({}, async (isStolen) => {
      this.isWaiting = false;
      if (this.owns || this.isTaking) return; // it takes over by the other way
      await this.ownWhatIsStored(isStolen);
    });
  }

  /**
   * Asks for the lock, and keeps it for as long as this tab owns the set.
   * @param take makes this tab the owner. Another one may steal the lock while this one still reads what is stored, as between two
   *   tabs that hand over to each other: after each wait it asks whether that has happened, and then leaves the set to the other.
   */
  private hold(options: LockOptions, take: (isStolen: () => boolean) => Promise<void>): void {
    let isStolen = false;
    const asked = this.browser.locks!.request(LOCK, options, async () => {
      await take(() => isStolen);
      return this.owns ? this.untilLost() : undefined;
    });
    this.whenLost(asked, () => {
      isStolen = true;
      this.isTaking = false;
      if (!this.owns) this.waitForLock();
    });
  }

  /** @param saved the set as it is stored; null if it is not */
  private lose(saved: OpenSet['set'] | null): void {
    if (!this.owns) return;
    this.owns = false;
    this.versions = null;
    this.saver?.end();
    for (const companion of this.companions) companion.lose();
    this.followed = saved;
    this.release();
    this.follow();
  }

  /** Its own edits are stored, too, where they are nobody's way. */
  private keepAside(): void {
    const { storage, now = () => new Date() } = this.browser;
    // Tabs that a browser opens again open in the same millisecond.
    this.asideKey = `${OTHER_PREFIX}${now().toISOString()} ${this.id}`;
    // Pieces of its own: the owner removes those that it needs no more.
    const pieces = new SetPieces(this.asideKey);
    this.saver = new Saver(this.store, storage, pieces, { set: this.followed, stage: null }, { share: 'set' });
  }

  /** The lock is held for as long as this promise is pending: until the set is handed over, or this tab is gone. */
  private untilLost(): Promise<void> {
    return new Promise((done) => (this.release = done));
  }

  private whenLost(asked: Promise<unknown>, failed?: () => void): void {
    asked.catch(async (error: unknown) => {
      if (error instanceof Error && error.name === 'AbortError') {
        // What is saved after the other one has begun would be lost there: it counts as an edit of this tab.
        this.lose(this.isSaved ? this.set : null);
        return failed?.();
      }
      this.store.dispatch(
        noticed(`The browser does not say which tab saves (${String(error)}). Keep Chaffinch open in one tab only.`),
      );
      if ((await this.opened()) && !this.owns) this.own(this.openSet);
      return failed?.();
    });
  }

  // --- what is stored ---------------------------------------------------------------------------------------

  /** Goes on with what the last owner has stored; if this tab was edited, with its own, and the other is put aside. */
  private async ownWhatIsStored(isStolen: () => boolean): Promise<void> {
    await this.followStored();
    if (isStolen()) return;
    // A hand may have been quicker than the storage.
    if (!this.isEdited) return this.own(this.openSet, this.pieces);
    const aside = this.asideKey;
    const isTheirsAside = await this.putTheirsAside(isStolen);
    if (isStolen()) return;
    if (isTheirsAside) {
      this.store.dispatch(noticed('This set is saved from now on. That of the other tab is kept, see Sets.'));
    }
    this.own({ set: null, stage: null });
    if (await this.saver!.saveNow()) await removeSet(this.browser.storage, aside);
  }

  /**
   * Tries until it has succeeded: nothing is saved over what lies nowhere else.
   * @returns whether there was anything else than what this tab was edited from
   */
  private async putTheirsAside(isStolen: () => boolean): Promise<boolean> {
    const { storage, now = () => new Date() } = this.browser;
    for (let failed = false; !isStolen(); failed = true) {
      try {
        const theirs = await findSet(storage, SET_KEY);
        // What this tab was edited from need not be kept; a set in the place of which another was opened here must be.
        if (theirs === null || (this.set.id === this.followed?.id && this.isFollowed(theirs))) return false;
        await setAside(storage, OTHER_PREFIX, textOf(theirs), now());
        if (failed) this.store.dispatch(saveTroubled(null));
        return true;
      } catch (error) {
        this.store.dispatch(saveTroubled(storageTrouble(error)));
        await new Promise((done) => setTimeout(done, AGAIN_MS));
      }
    }
    return false;
  }

  /** Whether a stored set is the one that this tab has followed, and edited since. */
  private isFollowed(stored: StoredSet): boolean {
    const read = readStored(stored);
    return 'set' in read && JSON.stringify(read.set) === JSON.stringify(this.followed);
  }

  /** Opens what the owner has saved, unless this tab was edited on purpose. */
  private async followStored(): Promise<void> {
    const found = await findSet(this.browser.storage, SET_KEY);
    const read = found ? readStored(found) : null;
    if (this.owns || this.isEdited) return;
    this.pieces = new SetPieces(SET_KEY);
    if (!found || !read || 'error' in read) return;
    this.store.dispatch(setLoaded(read));
    this.followed = this.set;
    this.pieces = SetPieces.ofStored(SET_KEY, read, found.keys);
    this.saver?.isStored();
  }

  private get isEdited(): boolean {
    return this.set !== this.followed;
  }

  private get isSaved(): boolean {
    return this.saver?.isUpToDate === true;
  }

  private get set(): OpenSet['set'] {
    return this.store.getState().set.present;
  }

  private get openSet(): OpenSet {
    return { set: this.set, stage: this.store.getState().stage };
  }
}
