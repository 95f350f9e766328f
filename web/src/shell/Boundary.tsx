import { Component, type ReactNode } from "react";
import { say } from "../text/say";

/** Catches what fails while a page is drawn: the frame stays, and the page can be drawn again. */
export class Boundary extends Component<{ children: ReactNode }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError() {
    return { failed: true };
  }

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <div role="alert" className="m-auto max-w-md p-6 text-center">
        <p className="mb-3">{say("problem.internal")}</p>
        <button type="button" className="press" onClick={() => this.setState({ failed: false })}>
          {say("ui.retry")}
        </button>
      </div>
    );
  }
}
