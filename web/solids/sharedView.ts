type Follower<Look> = (look: Look) => void

/** One place that several drawings look from: moving one moves all. */
export class SharedView<Look> {
  now: Look
  private readonly followers = new Map<() => void, Follower<Look>>()
  private readonly watchers = new Set<() => void>()
  private telling = false

  /** @param home the look that has everything in sight */
  constructor(public home: Look) {
    this.now = home
  }

  /** Follows from now on. Returns how to leave. */
  join(follow: Follower<Look>): () => void {
    const leave = (): void => {
      this.followers.delete(leave)
    }
    this.followers.set(leave, follow)
    follow(this.now)
    return leave
  }

  /** Looks elsewhere; all but the one that moved by itself are told. */
  turn(look: Look, except?: () => void): void {
    // Following moves a camera, which tells of it in turn.
    if (this.telling) return
    this.telling = true
    this.now = look
    for (const [leave, follow] of this.followers) if (leave !== except) follow(look)
    this.telling = false
    for (const watch of this.watchers) watch()
  }

  goHome(): void {
    this.turn(this.home)
  }

  readonly watch = (onChange: () => void): (() => void) => {
    this.watchers.add(onChange)
    return () => this.watchers.delete(onChange)
  }
}
