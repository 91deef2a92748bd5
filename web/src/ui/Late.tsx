import { Component, lazy, Suspense, useMemo, useState, type ComponentType, type ReactNode } from "react";
import { Shell } from "./Shell";

/** A page that is fetched when it is opened. When it cannot be, that is said, and it can be tried again; nothing goes blank. */
export function Late({ load }: { load: () => Promise<ComponentType> }) {
  const [attempt, setAttempt] = useState(0);
  // A failed fetch is remembered by the page that failed: each attempt is a new one.
  const Page = useMemo(() => lazy(async () => ({ default: await load() })), [load, attempt]);
  return (
    <Boundary key={attempt} again={() => setAttempt((n) => n + 1)}>
      <Suspense fallback={<Shell title="">{null}</Shell>}>
        <Page />
      </Suspense>
    </Boundary>
  );
}

/** Catches what a page throws, says so in its place, and offers to try again. */
export class Boundary extends Component<{ again?: () => void; children: ReactNode }, { failed: boolean }> {
  override state = { failed: false };

  static getDerivedStateFromError = () => ({ failed: true });

  override render() {
    if (!this.state.failed) return this.props.children;
    return (
      <Shell title="This page did not open">
        <div role="alert" className="flex max-w-[640px] flex-col gap-4 p-8 text-[18px]">
          <p className="m-0">
            Either the workshop's server does not answer, or something on this page went wrong. What you typed
            is kept on this device.
          </p>
          <button
            type="button"
            className="btn-primary"
            onClick={() => {
              this.props.again?.();
              this.setState({ failed: false });
            }}
          >
            Try again
          </button>
          <a className="link" href={window.location.pathname}>
            Load the whole page anew
          </a>
        </div>
      </Shell>
    );
  }
}
