/** ms over which the two clocks are compared. */
const WINDOW = 400;

/**
 * The time of the sound for a moment on the clock of the page. The sound's clock goes in steps of a few ms, and stands still
 * while the machine is busy; read beside each event it would make time jump, even backwards. It never runs ahead, so the
 * greatest of what was seen of it lately is the true distance of the two.
 */
export class Clock {
  private seen: { now: number; ahead: number }[] = [];

  /**
   * @param sound time of the sound, s
   * @param now the page's, ms
   */
  observe(sound: number, now: number): void {
    this.seen = this.seen.filter((one) => now - one.now < WINDOW);
    this.seen.push({ now, ahead: sound - now / 1000 });
  }

  /** @param when on the page's clock, ms; something must have been observed */
  at(when: number): number {
    return when / 1000 + Math.max(...this.seen.map((one) => one.ahead));
  }
}
