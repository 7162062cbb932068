/**
 * The meter and its leads at a two-wire loop: in series, across the test terminals, or where it should not be. A current jack
 * across the supply is a short: its fuse blows. A voltage jack in series opens the loop. Common practice.
 */
import type { Meter } from '../loop';
import type { World } from '../world';
import type { Jack, Lead } from './acts';

export class Leads {
  private jack: Jack = 'current';
  private isBlown = false;
  private readonly meter: Meter | null;

  constructor(
    private world: World,
    private lead: Lead,
    private readonly isInService: boolean,
  ) {
    this.meter = world.leads;
    this.connect();
  }

  /** Another world in the place of the one before, with the leads as they were. */
  moveTo(world: World): void {
    this.world = world;
    this.connect();
  }

  get at(): Lead {
    return this.lead;
  }
  get in(): Jack | 'blown' {
    return this.isBlown ? 'blown' : this.jack;
  }

  private get opensLoop(): boolean {
    return this.lead === 'in series' && (this.isBlown || this.jack === 'voltage');
  }

  /** @returns what is unsafe about it, in words */
  move(to: Lead): string[] {
    // A meter in series is put into a loop that is opened for it, and taken out of one.
    const opened = (this.lead === 'in series') !== (to === 'in series');
    this.lead = to;
    return this.judge(opened);
  }
  /** Puts the lead into a jack; a blown fuse is exchanged for it. @returns what is unsafe about it, in words */
  plug(jack: Jack): string[] {
    this.jack = jack;
    this.isBlown = false;
    return this.judge(this.opensLoop);
  }

  private judge(opened: boolean): string[] {
    const why: string[] = [];
    if (this.lead === 'across the supply' && this.jack === 'current' && !this.isBlown) {
      this.isBlown = true;
      why.push('the meter stood across the supply with its lead in the current jack: its fuse blew');
    }
    if (opened && this.isInService) why.push('the loop was opened while it was in service');
    this.connect();
    return why;
  }

  private connect(): void {
    const isIn = this.lead === 'in series' || this.lead === 'across the test terminals';
    this.world.rewire(
      isIn && this.meter !== null
        ? {
            ...this.meter,
            place: this.lead === 'in series' ? 'in series' : 'across the test terminals',
            jack: this.isBlown ? 'blown' : this.jack,
          }
        : null,
    );
  }

  /** What the meter shows, in mA or V; null where it shows nothing. */
  get shown(): { readonly value: number; readonly unit: 'mA' | 'V' } | null {
    if (this.lead === 'across the supply')
      return this.in === 'voltage' ? { value: this.world.shown.supplyV, unit: 'V' } : null;
    const { meter } = this.world.shown;
    return meter === null ? null : { value: meter, unit: 'mA' };
  }
}
