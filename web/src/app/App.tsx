import { useEffect, useRef } from "react";
import { BrowserRouter, Route, Routes } from "react-router";
import { Board } from "../features/jobs/Board";
import { JobFrame } from "../features/jobs/JobFrame";
import { RunSheetPage } from "../features/jobs/RunSheetPage";
import { SignIn } from "../features/workshop/SignIn";
import { Boundary, Late } from "../ui/Late";
import { Shell } from "../ui/Shell";
import { NewVersion } from "../ui/NewVersion";
import { OutboxBanner } from "../ui/OutboxBanner";
import { SignInAgain } from "../ui/SignInAgain";
import { useChanges } from "./changes";
import { useSession } from "./hooks";
import { useOutbox } from "./kept";
import { setPeople } from "./outbox";

// Each page is fetched when it is first opened.
const PAGES = {
  PastJobs: () => import("../features/jobs/PastJobs").then((m) => m.PastJobs),
  NewJob: () => import("../features/jobs/NewJob").then((m) => m.NewJob),
  PlanPage: () => import("../features/planning/PlanPage").then((m) => m.PlanPage),
  TorqueCardPage: () => import("../features/torque/TorqueCardPage").then((m) => m.TorqueCardPage),
  RecordPage: () => import("../features/jobs/RecordPage").then((m) => m.RecordPage),
  CustomerPage: () => import("../features/jobs/CustomerPage").then((m) => m.CustomerPage),
  LookPage: () => import("../features/identification/LookPage").then((m) => m.LookPage),
  RetractPage: () => import("../features/retraction/RetractPage").then((m) => m.RetractPage),
  QuickRetract: () => import("../features/retraction/QuickRetract").then((m) => m.QuickRetract),
  QuickFluid: () => import("../features/hydraulics/QuickFluid").then((m) => m.QuickFluid),
  JobFluid: () => import("../features/hydraulics/JobFluid").then((m) => m.JobFluid),
  QuickTorque: () => import("../features/torque/QuickTorque").then((m) => m.QuickTorque),
  QuickShoes: () => import("../features/shoes/ShoeBench").then((m) => m.QuickShoes),
  JobShoes: () => import("../features/shoes/ShoeBench").then((m) => m.JobShoes),
  QuickRotor: () => import("../features/rotors/RotorBench").then((m) => m.QuickRotor),
  JobRotor: () => import("../features/rotors/RotorBench").then((m) => m.JobRotor),
  QuickPads: () => import("../features/pads/PadBench").then((m) => m.QuickPads),
  JobPads: () => import("../features/pads/PadBench").then((m) => m.JobPads),
  ElectricBench: () => import("../features/electric/ElectricBench").then((m) => m.ElectricBench),
  CurrentBench: () => import("../features/electric/CurrentBench").then((m) => m.CurrentBench),
  QuickBedIn: () => import("../features/proving/BedInPage").then((m) => m.QuickBedIn),
  JobBedIn: () => import("../features/proving/BedInPage").then((m) => m.JobBedIn),
  QuickProve: () => import("../features/proving/ProvePage").then((m) => m.QuickProve),
  JobProve: () => import("../features/proving/ProvePage").then((m) => m.JobProve),
  PracticePage: () => import("../features/practice/PracticePage").then((m) => m.PracticePage),
  MakeScenario: () => import("../features/practice/MakeScenario").then((m) => m.MakeScenario),
  CardsPage: () => import("../features/practice/CardsPage").then((m) => m.CardsPage),
  DebriefPage: () => import("../features/practice/DebriefPage").then((m) => m.DebriefPage),
  VehiclesPage: () => import("../features/vehicles/VehiclesPage").then((m) => m.VehiclesPage),
  VehiclePage: () => import("../features/vehicles/VehiclePage").then((m) => m.VehiclePage),
  InstrumentsPage: () => import("../features/measuring/InstrumentsPage").then((m) => m.InstrumentsPage),
  SheetEditor: () => import("../features/vehicles/SheetEditor").then((m) => m.SheetEditor),
  HouseRules: () => import("../features/workshop/HouseRules").then((m) => m.HouseRules),
  WorkshopPage: () => import("../features/workshop/WorkshopPage").then((m) => m.WorkshopPage),
  SourcesPage: () => import("../features/workshop/SourcesPage").then((m) => m.SourcesPage),
};

const late = (page: keyof typeof PAGES) => <Late key={page} load={PAGES[page]} />;

/** Quick benches and sources need no sign-in; everything else asks who is there. */
function Guarded({ children }: { children: React.ReactNode }) {
  const session = useSession();
  if (session.isPending) return <Shell title="">{null}</Shell>;
  if (!session.data) return <Silent again={() => void session.refetch()} />;
  if (!session.data?.me) return <SignIn />;
  return children;
}

/** Nobody is known yet: the server is silent, or fails. That is said, and what waits stands above it. */
function Silent({ again }: { again: () => void }) {
  const { reachable } = useOutbox();
  const before = useRef(reachable);
  useEffect(() => {
    // Once it is back, and not again and again where it answers with a failure.
    if (reachable && !before.current) again();
    before.current = reachable;
  }, [reachable, again]);
  return (
    <Shell title="The server does not answer">
      <div className="flex max-w-[640px] flex-col gap-4 p-8 text-[20px]">
        <p className="m-0">
          This page opens by itself as soon as it does. What was done on this device is kept on it.
        </p>
        <button type="button" className="btn-primary" onClick={again}>
          Try again
        </button>
      </div>
    </Shell>
  );
}

const guarded = (view: React.ReactNode) => <Guarded>{view}</Guarded>;

export function App() {
  const session = useSession().data;
  useChanges(session?.me != null);
  useEffect(() => setPeople([session?.me, session?.with].filter((p) => p != null)), [session]);
  return (
    <BrowserRouter>
      {/* Outside of every page: it does not move from under a finger while one page follows another. */}
      <div className="flex h-full flex-col">
        <NewVersion />
        <OutboxBanner />
        <SignInAgain />
        <div className="min-h-0 flex-1">
          <Boundary>
            <Routes>
              <Route path="/" element={guarded(<Board />)} />
              <Route path="/jobs/past" element={guarded(late("PastJobs"))} />
              <Route path="/jobs/new" element={guarded(late("NewJob"))} />
              <Route path="/jobs/:id" element={guarded(<JobFrame />)}>
                <Route index element={<RunSheetPage />} />
                <Route path="look/:side" element={late("LookPage")} />
                <Route path="retract/:side" element={late("RetractPage")} />
                <Route path="fluid" element={late("JobFluid")} />
                <Route path="shoes/:side" element={late("JobShoes")} />
                <Route path="rotor/:side" element={late("JobRotor")} />
                <Route path="pads" element={late("JobPads")} />
                <Route path="electric" element={late("ElectricBench")} />
                <Route path="prove" element={late("JobProve")} />
                <Route path="bed-in" element={late("JobBedIn")} />
                <Route path="plan" element={late("PlanPage")} />
                <Route path="torques" element={late("TorqueCardPage")} />
                <Route path="record" element={late("RecordPage")} />
                <Route path="debrief" element={late("DebriefPage")} />
                <Route path="customer" element={late("CustomerPage")} />
              </Route>
              <Route path="/bench/retract" element={late("QuickRetract")} />
              <Route path="/bench/fluid" element={late("QuickFluid")} />
              <Route path="/bench/torque" element={late("QuickTorque")} />
              <Route path="/bench/shoes" element={late("QuickShoes")} />
              <Route path="/bench/rotor" element={late("QuickRotor")} />
              <Route path="/bench/pads" element={late("QuickPads")} />
              <Route path="/bench/current" element={late("CurrentBench")} />
              <Route path="/bench/parking-brake" element={late("QuickProve")} />
              <Route path="/bench/bed-in" element={late("QuickBedIn")} />
              <Route path="/practice" element={guarded(late("PracticePage"))} />
              <Route path="/practice/make" element={guarded(late("MakeScenario"))} />
              <Route path="/practice/cards" element={guarded(late("CardsPage"))} />
              <Route path="/vehicles" element={guarded(late("VehiclesPage"))} />
              <Route path="/vehicles/:plate" element={guarded(late("VehiclePage"))} />
              <Route path="/workshop" element={guarded(late("WorkshopPage"))} />
              <Route path="/workshop/instruments" element={guarded(late("InstrumentsPage"))} />
              <Route path="/workshop/spec-sheets/new" element={guarded(late("SheetEditor"))} />
              <Route path="/workshop/spec-sheets/:code" element={guarded(late("SheetEditor"))} />
              <Route path="/workshop/house-rules" element={guarded(late("HouseRules"))} />
              <Route path="/sources" element={late("SourcesPage")} />
              <Route
                path="*"
                element={
                  <Shell title="Nothing here">
                    <p className="p-8">
                      There is no such page.{" "}
                      <a className="link" href="/">
                        To the bay board
                      </a>
                    </p>
                  </Shell>
                }
              />
            </Routes>
          </Boundary>
        </div>
      </div>
    </BrowserRouter>
  );
}
