import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, take, type Schemas } from "../../app/api";
import { Shell } from "../../ui/Shell";

const KIND: Record<Schemas["SourceKind"], string> = {
  published: "published",
  "common-practice": "common practice, no source",
  arithmetic: "arithmetic",
  default: "default of this product",
};

/** Where every figure and rule comes from, and the sixteen interlocks. */
export function SourcesPage() {
  const view = useQuery({
    queryKey: ["sources"],
    queryFn: () => take(api.GET("/api/sources")),
    staleTime: Infinity,
  });
  useEffect(() => {
    if (view.data && location.hash) document.getElementById(location.hash.slice(1))?.scrollIntoView();
  }, [view.data]);
  return (
    <Shell title="Sources">
      <div
        tabIndex={0}
        role="group"
        aria-label="Sources and interlocks"
        className="grid h-full content-start gap-8 overflow-auto p-6 min-[900px]:grid-cols-2"
      >
        <section>
          <h2 className="text-[26px]">Where figures come from</h2>
          {view.data?.sources.map((s) => (
            <div
              key={s.id}
              id={s.id}
              className="border-t border-rule py-2 target:border-l-8 target:border-l-pawl target:pl-3"
            >
              <h3 className="text-[19px]">{s.title}</h3>
              <p className="m-0 text-[15px]">{s.says}</p>
              <p className="m-0 text-[14px] text-ink-2">
                {s.id}: {KIND[s.kind]}
                {s.fromMemory ? "; quoted from memory, to be checked against the text" : ""}
              </p>
            </div>
          ))}
        </section>
        <section>
          <h2 className="text-[26px]">The sixteen interlocks</h2>
          {view.data?.interlocks.map((i) => (
            <div key={i.number} className="border-t border-rule py-2">
              <h3 className="text-[19px]">
                {i.number}. {i.name}
              </h3>
              <p className="m-0 text-[15px]">
                {i.message}{" "}
                <span className="text-ink-2">Else: {i.why.charAt(0).toLowerCase() + i.why.slice(1)}</span>
              </p>
              <p className="m-0 text-[14px] text-ink-2">Broken already: {i.remedy}</p>
            </div>
          ))}
        </section>
      </div>
    </Shell>
  );
}
