import { Component, useEffect, useState, type ComponentType, type ReactNode } from "react";
import { Shell } from "./Shell";

type Load = () => Promise<ComponentType>;

// Opened once, a page is there at once.
const fetched = new Map<Load, ComponentType>();

/** A page that is fetched when it is opened. When it cannot be, that is said, and it can be tried again; nothing goes blank. */
export function Late({ load }: { load: Load }) {
  const [attempt, setAttempt] = useState(0);
  return (
    <Boundary key={attempt} again={() => setAttempt((n) => n + 1)}>
      <Fetched load={load} />
    </Boundary>
  );
}

/** Not by Suspense, which holds back for 300 ms whatever comes after a place was shown empty: every page would be that much later. */
function Fetched({ load }: { load: Load }) {
  const [page, setPage] = useState<{ Page: ComponentType } | { failure: unknown } | undefined>(() => {
    const Page = fetched.get(load);
    return Page && { Page };
  });
  useEffect(() => {
    if (page) return;
    let here = true;
    load().then(
      (Page) => {
        fetched.set(load, Page);
        if (here) setPage({ Page });
      },
      (failure: unknown) => here && setPage({ failure }),
    );
    return () => {
      here = false;
    };
  }, [load, page]);
  if (!page) return <Shell title="">{null}</Shell>;
  if ("failure" in page) throw page.failure;
  return <page.Page />;
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
