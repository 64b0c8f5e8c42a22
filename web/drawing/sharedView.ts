/** Where a flat drawing is looked at: its middle in mm, and pixels per mm. */
export interface Look {
  readonly x: number
  readonly y: number
  readonly zoom: number
}

type Follower = (look: Look) => void

/** One place that several drawings look at: moving one moves all. */
export class SharedView {
  /** The look that has everything in sight. */
  home: Look = { x: 0, y: 0, zoom: 1 }
  now: Look = this.home
  private readonly followers = new Map<() => void, Follower>()
  private readonly watchers = new Set<() => void>()
  private telling = false

  /** Follows from now on. Returns how to leave. */
  join(follow: Follower): () => void {
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

  zoomBy(factor: number): void {
    this.turn({ ...this.now, zoom: this.now.zoom * factor })
  }

  readonly watch = (onChange: () => void): (() => void) => {
    this.watchers.add(onChange)
    return () => this.watchers.delete(onChange)
  }
}
