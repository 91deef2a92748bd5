import { useQuery } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, take, type Schemas } from "../../app/api";
import { useAsking } from "../../app/changes";
import { useKeys, useSession } from "../../app/hooks";
import { queries } from "../../app/queries";
import { useReminders } from "../vehicles/VehiclesPage";
import { BoltHead, Rack } from "../../ui/marks";
import { Shell } from "../../ui/Shell";

type Card = Schemas["BoardCard"];
type Corner = Schemas["BoardCorner"];
const STAGE = [
  "Look",
  "Make safe",
  "Free",
  "Judge",
  "Clean",
  "Retract",
  "Fit",
  "Torque",
  "Close",
  "Prove",
  "Record",
];
const KEYS: Schemas["Stage"][] = [
  "look",
  "make-safe",
  "free",
  "judge",
  "clean",
  "retract",
  "fit",
  "torque",
  "close",
  "prove",
  "record",
];

/** The cars in the workshop: where each is held, what is next on each side. */
export function Board() {
  const board = useQuery({
    ...queries.board,
    refetchInterval: useAsking(),
  });
  const logs = useQuery({
    queryKey: ["logs"],
    queryFn: () => take(api.GET("/api/workshop/logs")),
    // Asked again only until the reading after the start is through.
    refetchInterval: (q) => (q.state.data?.at ? false : 5000),
  });
  const session = useSession();
  const navigate = useNavigate();
  useKeys({ n: () => void navigate("/jobs/new") });
  // A finished car stands on the board until another takes its bay.
  const rows = board.data?.filter(
    (c) => c.status !== "finished" || !board.data.some((o) => o.bay === c.bay && o.number > c.number),
  );
  const due = useReminders().data?.reminders ?? [];
  return (
    <Shell
      title="Bay board"
      sub={session.data?.workshop}
      keys={{ N: "New job", Tab: "From car to car; Enter opens" }}
      info={
        <Link to="/practice" className="flex min-h-11 items-center max-[800px]:hidden">
          Practice
        </Link>
      }
    >
      <div className="flex h-full max-[1000px]:flex-col max-[1000px]:overflow-auto">
        <div className="min-h-0 flex-1 overflow-auto bg-[linear-gradient(to_right,var(--rail)_88px,var(--ground)_88px)] max-[1000px]:flex-none max-[1000px]:overflow-visible max-[800px]:bg-none">
          <div className="grid grid-cols-[88px_1fr] max-[800px]:hidden">
            <span />
            <div className="grid grid-cols-[1fr_420px_1fr] px-4 pt-1 text-ink-2 max-[1200px]:grid-cols-[1fr_340px_1fr]">
              <span className="step-name pl-10">Left corner</span>
              <span className="step-name">Car</span>
              <span className="step-name pr-10 text-right">Right corner</span>
            </div>
          </div>
          {logs.data && logs.data.wrong.length > 0 && (
            <div
              role="alert"
              className="m-4 ml-[104px] border-2 border-outside bg-plate p-3 max-[800px]:ml-4"
            >
              <b>What was stored has been changed past this program.</b> Keep a copy of the data folder, and
              ask for the last backup.
              {logs.data.wrong.slice(0, 5).map((w) => (
                <p key={w.jobId} className="m-0">
                  {w.number === null ? (
                    w.says
                  ) : (
                    <Link to={`/jobs/${w.jobId}/record`} className="link">
                      Job {w.number}. {w.says}
                    </Link>
                  )}
                </p>
              ))}
              {logs.data.wrong.length > 5 && <p className="m-0">And {logs.data.wrong.length - 5} more.</p>}
            </div>
          )}
          {rows?.length === 0 && (
            <p className="m-0 p-8 pl-28 text-[20px]">No car is in. Start the first job.</p>
          )}
          {rows?.map((c) => (
            <Row key={c.jobId} card={c} />
          ))}
        </div>
        <aside className="flex w-[284px] flex-shrink-0 flex-col gap-3 overflow-hidden border-l-2 border-ink bg-plate p-5 max-[1000px]:w-full max-[1000px]:flex-shrink max-[1000px]:border-t-2 max-[1000px]:border-l-0">
          <div
            className="flex min-h-[96px] flex-1 flex-col gap-3 overflow-auto"
            tabIndex={0}
            role="group"
            aria-label="Comes due"
          >
            <h2 className="text-[24px]">Comes due</h2>
            {due.length === 0 && <p className="m-0 text-[15px] text-ink-2">Nothing comes due.</p>}
            {due.map((r) => (
              <Link
                key={r.id}
                to={r.plate ? `/vehicles/${encodeURIComponent(r.plate)}` : "/vehicles"}
                className="block border-t border-rule pt-2 no-underline"
              >
                <span className="step-name block font-semibold">{r.about}</span>
                <span className="text-[15px] text-ink-2">
                  {r.overdue && <b className="text-outside">Overdue. </b>}
                  {r.says}
                </span>
              </Link>
            ))}
          </div>
          <h2 className="mt-2 text-[24px]">Quick bench</h2>
          <div className="grid grid-cols-3 gap-1 [&_.btn]:justify-center [&_.btn]:px-1">
            <Link className="btn" to="/bench/retract">
              Retract
            </Link>
            <Link className="btn" to="/bench/fluid">
              Fluid
            </Link>
            <Link className="btn" to="/bench/torque">
              Torque
            </Link>
            <Link className="btn" to="/bench/shoes">
              Shoes
            </Link>
            <Link className="btn" to="/bench/rotor">
              Rotor
            </Link>
            <Link className="btn" to="/bench/pads">
              Pads
            </Link>
            <Link className="btn" to="/bench/current">
              Motor current
            </Link>
            <Link className="btn" to="/bench/parking-brake">
              Parking brake
            </Link>
            <Link className="btn" to="/bench/bed-in">
              Bed-in
            </Link>
            <Link className="btn" to="/vehicles">
              Vehicles
            </Link>
            <Link className="btn" to="/jobs/past">
              Past jobs
            </Link>
            <Link className="btn" to="/workshop">
              Workshop
            </Link>
            <Link className="btn min-[801px]:hidden" to="/practice">
              Practice
            </Link>
          </div>
          <p className="m-0 pt-2 text-[15px] text-ink-2">
            Maker's data, local law and a licensed technician outrank every figure here.
          </p>
          <Link className="btn-primary" to="/jobs/new">
            New job <span className="keycap">N</span>
          </Link>
        </aside>
      </div>
    </Shell>
  );
}

function Row({ card }: { card: Card }) {
  const plate = {
    waits: "bg-rail text-rail-text border-railline border-2",
    "in-hand": "bg-plate border-ink border-2",
    "not-started": "bg-ground border-ink border-2 border-dashed",
    finished: "bg-plate border-ink border-[1.5px]",
  }[card.status];
  return (
    <section
      className="grid grid-cols-[88px_1fr] border-b border-rule max-[800px]:grid-cols-1"
      aria-label={`Bay ${card.bay}, ${card.vehicle.model}`}
    >
      <div className="flex items-center justify-center text-[62px] leading-none font-bold text-rail-text max-[800px]:justify-start max-[800px]:px-4 max-[800px]:pt-2 max-[800px]:text-[22px] max-[800px]:text-ink">
        <span className="hidden max-[800px]:inline">Bay&nbsp;</span>
        {card.bay}
      </div>
      <div className="grid grid-cols-[1fr_420px_1fr] items-center gap-0 px-4 py-[5px] max-[1200px]:grid-cols-[1fr_340px_1fr] max-[800px]:grid-cols-2">
        <Axle corner={card.left} finished={card.status === "finished"} />
        <Link
          to={`/jobs/${card.jobId}`}
          className={`flex min-h-[96px] items-center gap-3 rounded px-3 no-underline max-[800px]:order-first max-[800px]:col-span-2 ${plate}`}
        >
          <BoltHead met={!card.left.stuck && card.left.teethDone >= card.right.teethDone} />
          <span className="min-w-0 flex-1">
            <span className="title flex justify-between gap-2 text-[23px]">
              <span className="truncate">{card.lead}</span>
              <span className="font-medium">{card.by?.split(" ")[0] ?? "nobody"}</span>
            </span>
            <span
              className={`title block truncate leading-[1.1] max-[1200px]:text-[27px] ${card.headline.length > 19 ? "text-[29px]" : "text-[37px]"}`}
            >
              {card.headline}
            </span>
            <span className="block truncate text-[15px]">{card.next}</span>
          </span>
          <BoltHead met={!card.right.stuck && card.right.teethDone >= card.left.teethDone} />
        </Link>
        <Axle corner={card.right} right finished={card.status === "finished"} />
      </div>
    </section>
  );
}

function Axle({ corner, right, finished }: { corner: Corner; right?: boolean; finished?: boolean }) {
  const pawl = finished
    ? "none"
    : corner.stuck
      ? "stuck"
      : corner.undecided
        ? "undecided"
        : corner.present
          ? "here"
          : "resting";
  const tone = corner.stuck
    ? "text-outside font-bold"
    : corner.undecided
      ? "text-undecided font-bold"
      : "text-ink-2";
  return (
    <div className={`flex min-w-0 items-start gap-0 ${right ? "flex-row-reverse" : ""}`}>
      <svg width="28" height="76" viewBox="0 0 28 76" aria-hidden="true" className="mt-1 flex-shrink-0">
        {corner.wheelOff ? (
          <>
            <rect
              x="1"
              y="2"
              width="26"
              height="72"
              rx="6"
              fill="none"
              stroke="var(--ink-2)"
              strokeWidth="1.4"
              strokeDasharray="4 3"
            />
            <rect
              x={10}
              y="16"
              width="8"
              height="44"
              fill="var(--iron)"
              stroke="var(--ink)"
              strokeWidth="1.4"
            />
          </>
        ) : (
          <>
            <rect x="1" y="2" width="26" height="72" rx="6" fill="var(--ink)" />
            <path
              d="M6 14 H22 M6 25 H22 M6 36 H22 M6 47 H22 M6 58 H22"
              stroke="var(--ground)"
              strokeWidth="1.6"
            />
          </>
        )}
      </svg>
      <div className="min-w-0 flex-1">
        <div className="px-[6px]">
          <Rack
            teeth={11}
            done={corner.teethDone}
            pawl={pawl}
            flip={right}
            width={180}
            undecidedAt={corner.undecided}
            stuckAt={corner.stuck}
          />
        </div>
        <div className="mt-[-6px] h-[5px] bg-ink" />
        <div
          className={`flex flex-wrap items-baseline justify-between gap-x-2 px-2 pt-1 ${right ? "flex-row-reverse text-right" : ""}`}
        >
          <span className="title text-[21px]">{finished ? "Done" : STAGE[KEYS.indexOf(corner.stage)]}</span>
          <span className="text-[13.5px] text-ink-2 max-[1100px]:hidden max-[800px]:inline">
            {corner.kind}
          </span>
          <span
            className={`w-full truncate text-[14px] max-[1100px]:whitespace-normal max-[800px]:whitespace-nowrap ${tone}`}
          >
            {corner.says}
          </span>
        </div>
      </div>
    </div>
  );
}
