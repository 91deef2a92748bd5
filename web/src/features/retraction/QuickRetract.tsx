import { Tabs } from "radix-ui";
import { useSearchParams } from "react-router";
import { Shell } from "../../ui/Shell";
import { TabList } from "../../ui/TabList";
import { QuickLog } from "./QuickLog";
import { QuickOpposed } from "./QuickOpposed";
import { QuickSlot } from "./QuickSlot";
import { WayAndDistance } from "./WayAndDistance";

const TABS = [
  ["way", "Way, distance", WayAndDistance],
  ["log", "Log", QuickLog],
  ["slot", "Slot and boot", QuickSlot],
  ["opposed", "Opposed", QuickOpposed],
] as const;

/** The retract bench with no job: the way back, the log, the slot, opposed pistons. */
export function QuickRetract() {
  const [query, setQuery] = useSearchParams();
  const tab = TABS.find(([id]) => id === query.get("tab"))?.[0] ?? "way";
  const list = (
    <div className="flex flex-shrink-0">
      <TabList label="Retract bench" tabs={TABS.map(([id, name]) => [id, name] as const)} />
    </div>
  );
  return (
    <Shell
      title="Retract bench"
      sub="with no job"
      keys={
        tab === "log"
          ? {
              Space: "Count one turn or stroke",
              H: "Count a half",
              P: "Pause, go on",
              Enter: "Log what a gauge sent",
            }
          : { Enter: "Next field" }
      }
    >
      <Tabs.Root
        value={tab}
        onValueChange={(id) => setQuery({ tab: id }, { replace: true })}
        className="h-full min-h-0"
      >
        {TABS.map(([id, , Bench]) => (
          <Tabs.Content key={id} value={id} className="h-full min-h-0 outline-none" tabIndex={-1}>
            <Bench tabs={list} />
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </Shell>
  );
}
