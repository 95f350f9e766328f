import { Component, type ReactNode } from "react";
import { say } from "../text/say";

/**
 * Catches what fails while a page is drawn: the frame stays, and the page can be drawn again.
 * A page whose script did not come (the program was stopped, or is a newer one now) is loaded anew.
 */
export class Boundary extends Component<{ children: ReactNode }, { failed: boolean; script: boolean }> {
  override state = { failed: false, script: false };

  static getDerivedStateFromError(e: unknown) {
    return { failed: true, script: /import|module script/i.test(String(e)) };
  }

  again = () => (this.state.script ? location.reload() : this.setState({ failed: false }));

  override render() {
    if (!this.state.failed) return this.props.children;
    const said = this.state.script ? "ui.offline" : "problem.internal";
    return (
      <div role="alert" className="m-auto max-w-md p-6 text-center">
        <p className="mb-3">{say(said)}</p>
        <button type="button" className="press" onClick={this.again}>
          {say("ui.retry")}
        </button>
      </div>
    );
  }
}
