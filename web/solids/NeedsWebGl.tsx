import { Component, type ReactNode } from 'react'

/** Without WebGL there is no picture, but everything else works. */
export class NeedsWebGl extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false }
  static getDerivedStateFromError() {
    return { failed: true }
  }
  override render() {
    return this.state.failed ? (
      <p className="m-auto p-2 text-[12px] text-muted">The picture needs WebGL; its table does not.</p>
    ) : (
      this.props.children
    )
  }
}
