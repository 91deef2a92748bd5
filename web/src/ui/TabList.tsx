import { Tabs } from "radix-ui";

/** The parts of a bench, side by side. */
export function TabList({
  label,
  tabs,
}: {
  label: string;
  tabs: readonly (readonly [id: string, name: string])[];
}) {
  return (
    <Tabs.List className="grid flex-1 flex-shrink-0 auto-cols-fr grid-flow-col gap-1" aria-label={label}>
      {tabs.map(([id, name]) => (
        <Tabs.Trigger
          key={id}
          value={id}
          className="btn justify-center !px-2 text-center data-[state=active]:!border-ink data-[state=active]:!bg-ink data-[state=active]:!text-plate"
        >
          {name}
        </Tabs.Trigger>
      ))}
    </Tabs.List>
  );
}
