import { lazy, Suspense } from "react";
import { BrowserRouter, Route, Routes } from "react-router";
import { Board } from "../features/jobs/Board";
import { JobFrame } from "../features/jobs/JobFrame";
import { RunSheetPage } from "../features/jobs/RunSheetPage";
import { SignIn } from "../features/workshop/SignIn";
import { Shell } from "../ui/Shell";
import { useSession } from "./hooks";

const NewJob = lazy(() => import("../features/jobs/NewJob").then((m) => ({ default: m.NewJob })));
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
const QuickTorque = lazy(() =>
  import("../features/torque/QuickTorque").then((m) => ({ default: m.QuickTorque })),
);
const ShoeBench = lazy(() => import("../features/shoes/ShoeBench").then((m) => ({ default: m.ShoeBench })));
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
            <Route path="record" element={<RecordPage />} />
          </Route>
          <Route path="/bench/retract" element={<QuickRetract />} />
          <Route path="/bench/torque" element={<QuickTorque />} />
          <Route path="/bench/shoes" element={<ShoeBench />} />
          <Route path="/workshop" element={guarded(<WorkshopPage />)} />
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
