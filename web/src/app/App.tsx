import { lazy, Suspense } from "react";
import { BrowserRouter, Route, Routes } from "react-router";
import { Board } from "../features/jobs/Board";
import { JobFrame } from "../features/jobs/JobFrame";
import { RunSheetPage } from "../features/jobs/RunSheetPage";
import { SignIn } from "../features/workshop/SignIn";
import { Shell } from "../ui/Shell";
import { useSession } from "./hooks";

const NewJob = lazy(() => import("../features/jobs/NewJob").then((m) => ({ default: m.NewJob })));
const PlanPage = lazy(() => import("../features/jobs/PlanPage").then((m) => ({ default: m.PlanPage })));
const TorqueCardPage = lazy(() =>
  import("../features/torque/TorqueCardPage").then((m) => ({ default: m.TorqueCardPage })),
);
const RecordPage = lazy(() => import("../features/jobs/RecordPage").then((m) => ({ default: m.RecordPage })));
const LookPage = lazy(() =>
  import("../features/identification/LookPage").then((m) => ({ default: m.LookPage })),
);
const RetractPage = lazy(() =>
  import("../features/retraction/RetractPage").then((m) => ({ default: m.RetractPage })),
);
const QuickRetract = lazy(() =>
  import("../features/retraction/QuickRetract").then((m) => ({ default: m.QuickRetract })),
);
const QuickFluid = lazy(() =>
  import("../features/hydraulics/QuickFluid").then((m) => ({ default: m.QuickFluid })),
);
const JobFluid = lazy(() => import("../features/hydraulics/JobFluid").then((m) => ({ default: m.JobFluid })));
const QuickTorque = lazy(() =>
  import("../features/torque/QuickTorque").then((m) => ({ default: m.QuickTorque })),
);
const QuickShoes = lazy(() => import("../features/shoes/ShoeBench").then((m) => ({ default: m.QuickShoes })));
const JobShoes = lazy(() => import("../features/shoes/ShoeBench").then((m) => ({ default: m.JobShoes })));
const QuickRotor = lazy(() =>
  import("../features/rotors/RotorBench").then((m) => ({ default: m.QuickRotor })),
);
const JobRotor = lazy(() => import("../features/rotors/RotorBench").then((m) => ({ default: m.JobRotor })));
const QuickPads = lazy(() => import("../features/pads/PadBench").then((m) => ({ default: m.QuickPads })));
const JobPads = lazy(() => import("../features/pads/PadBench").then((m) => ({ default: m.JobPads })));
const InstrumentsPage = lazy(() =>
  import("../features/measuring/InstrumentsPage").then((m) => ({ default: m.InstrumentsPage })),
);
const SheetEditor = lazy(() =>
  import("../features/workshop/SheetEditor").then((m) => ({ default: m.SheetEditor })),
);
const HouseRules = lazy(() =>
  import("../features/workshop/HouseRules").then((m) => ({ default: m.HouseRules })),
);
const WorkshopPage = lazy(() =>
  import("../features/workshop/WorkshopPage").then((m) => ({ default: m.WorkshopPage })),
);
const SourcesPage = lazy(() =>
  import("../features/workshop/SourcesPage").then((m) => ({ default: m.SourcesPage })),
);

/** Quick benches and sources need no sign-in; everything else asks who is there. */
function Guarded({ children }: { children: React.ReactNode }) {
  const session = useSession();
  if (session.isPending) return <Shell title="">{null}</Shell>;
  if (!session.data?.me) return <SignIn />;
  return children;
}

const guarded = (view: React.ReactNode) => <Guarded>{view}</Guarded>;

export function App() {
  return (
    <BrowserRouter>
      <Suspense fallback={<Shell title="">{null}</Shell>}>
        <Routes>
          <Route path="/" element={guarded(<Board />)} />
          <Route path="/jobs/new" element={guarded(<NewJob />)} />
          <Route path="/jobs/:id" element={guarded(<JobFrame />)}>
            <Route index element={<RunSheetPage />} />
            <Route path="look/:side" element={<LookPage />} />
            <Route path="retract/:side" element={<RetractPage />} />
            <Route path="fluid" element={<JobFluid />} />
            <Route path="shoes/:side" element={<JobShoes />} />
            <Route path="rotor/:side" element={<JobRotor />} />
            <Route path="pads" element={<JobPads />} />
            <Route path="plan" element={<PlanPage />} />
            <Route path="torques" element={<TorqueCardPage />} />
            <Route path="record" element={<RecordPage />} />
          </Route>
          <Route path="/bench/retract" element={<QuickRetract />} />
          <Route path="/bench/fluid" element={<QuickFluid />} />
          <Route path="/bench/torque" element={<QuickTorque />} />
          <Route path="/bench/shoes" element={<QuickShoes />} />
          <Route path="/bench/rotor" element={<QuickRotor />} />
          <Route path="/bench/pads" element={<QuickPads />} />
          <Route path="/workshop" element={guarded(<WorkshopPage />)} />
          <Route path="/workshop/instruments" element={guarded(<InstrumentsPage />)} />
          <Route path="/workshop/spec-sheets/new" element={guarded(<SheetEditor />)} />
          <Route path="/workshop/spec-sheets/:code" element={guarded(<SheetEditor />)} />
          <Route path="/workshop/house-rules" element={guarded(<HouseRules />)} />
          <Route path="/sources" element={<SourcesPage />} />
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
      </Suspense>
    </BrowserRouter>
  );
}
