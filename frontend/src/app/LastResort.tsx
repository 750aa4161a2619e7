import { Component, type ReactNode } from "react";
import { isAllHere } from "../api/outbox";

const UNKEPT = "This browser had no room for what was not sent yet: leaving this page loses it.";

/** What is shown when a screen breaks: what is safe, and what to do. */
export class LastResort extends Component<{ children: ReactNode }, { broken: boolean }> {
  override state = { broken: false };

  static getDerivedStateFromError() {
    return { broken: true };
  }

  override render() {
    if (!this.state.broken) return this.props.children;
    return (
      <main className="p-8 max-w-xl mx-auto" role="alert">
        <h1 className="text-2xl font-bold mb-2">This screen broke, and it is our fault</h1>
        <p className="mb-4">
          What was kept is safe. {isAllHere() ? "What was not sent yet is still on this computer." : UNKEPT}
        </p>
        <a className="button button-first" href="/">
          Back to Today
        </a>
      </main>
    );
  }
}
