import { Dialog } from "radix-ui";
import { useEffect, useState, type ReactNode } from "react";
import { Link, useNavigate } from "react-router";
import { useKeys } from "../app/hooks";
import { useTheme } from "../app/theme";
import { Logo } from "./marks";
import { MarksKey } from "./MarksKey";
import { Overlay } from "./Overlay";
import { WhoIsHere } from "./WhoIsHere";

/** The frame of every view: header, and what the view's keys do. */
export function Shell({
  title,
  sub,
  info,
  keys = {},
  children,
}: {
  title: string;
  sub?: string;
  info?: ReactNode;
  keys?: Record<string, string>;
  children: ReactNode;
}) {
  const [theme, toggle] = useTheme();
  const [help, setHelp] = useState(false);
  const navigate = useNavigate();
  useKeys({ "?": () => setHelp(true), b: () => void navigate("/") });
  const all: Record<string, string> = { ...keys, B: "Bay board", "?": "These keys" };
  useEffect(() => {
    document.title = title ? `${title}${sub ? `, ${sub}` : ""}: Patient Pawl` : "Patient Pawl";
  }, [title, sub]);
  return (
    <div className="flex h-full flex-col">
      <a className="skip no-print" href="#content">
        To the content
      </a>
      <header className="no-print flex h-[52px] flex-shrink-0 items-center gap-4 bg-rail px-4 text-rail-text max-[800px]:h-auto max-[800px]:flex-wrap max-[800px]:gap-x-2 max-[800px]:gap-y-0 [@media(max-height:700px)]:h-11 max-[800px]:[@media(max-height:700px)]:h-auto">
        <Link
          to="/"
          className="flex min-h-12 items-center gap-2 no-underline"
          aria-label="Patient Pawl, bay board"
        >
          <Logo />
          <span className="title text-[24px] whitespace-nowrap max-[1100px]:hidden">Patient Pawl</span>
        </Link>
        <h1 className="truncate text-[24px]">{title}</h1>
        {sub && <span className="min-w-0 flex-1 truncate text-[15px] max-[1000px]:hidden">{sub}</span>}
        <span className="ml-auto flex items-center gap-5 text-[15px] whitespace-nowrap max-[800px]:gap-2 max-[420px]:gap-1">
          {info}
          <WhoIsHere />
          <button
            type="button"
            onClick={toggle}
            className="min-h-12 border-0 bg-transparent text-rail-text"
            aria-label={theme === "day" ? "Night colours" : "Day colours"}
          >
            {theme === "day" ? "Night" : "Day"}
          </button>
          <Dialog.Root open={help} onOpenChange={setHelp}>
            <Dialog.Trigger
              className="min-h-12 min-w-11 border-0 bg-transparent text-rail-text"
              aria-label="Keys of this view"
            >
              <span className="keycap">?</span>
            </Dialog.Trigger>
            <Overlay title="Keys of this view, and marks" wide>
              <div className="grid grid-cols-2 items-start gap-8 max-[700px]:grid-cols-1">
                <dl className="m-0 grid grid-cols-[auto_1fr] items-center gap-x-4 gap-y-3">
                  {Object.entries(all).map(([key, does]) => (
                    <div key={key} className="contents">
                      <dt>
                        <span className="keycap">{key}</span>
                      </dt>
                      <dd className="m-0">{does}</dd>
                    </div>
                  ))}
                </dl>
                <MarksKey />
              </div>
            </Overlay>
          </Dialog.Root>
        </span>
      </header>
      <main id="content" tabIndex={-1} className="min-h-0 flex-1 outline-none">
        {children}
      </main>
    </div>
  );
}
