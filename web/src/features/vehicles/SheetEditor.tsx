import { useQuery } from "@tanstack/react-query";
import { Link, useParams, useSearchParams } from "react-router";
import { queries } from "../../app/queries";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { SheetForm } from "./SheetForm";

/** Waits for the sheets and for what a sheet is made of, then opens the form on the one named, on a copy of it, or empty. */
export function SheetEditor() {
  const { code } = useParams();
  const [query] = useSearchParams();
  const sheets = useQuery(queries.sheets);
  const form = useQuery(queries.sheetForm);
  const error = sheets.error ?? form.error;
  if (!sheets.data || !form.data)
    return <Shell title="Spec sheet">{error && <ProblemNote error={error} />}</Shell>;
  const from = sheets.data.find((s) => s.code === (code ?? query.get("copy")));
  if (code && !from)
    return (
      <Shell title={`Spec sheet ${code}`}>
        {error && <ProblemNote error={error} />}
        {!error && !sheets.isFetching && (
          <p className="m-6 text-[19px]">
            This workshop has no spec sheet {code}.{" "}
            <Link className="link" to="/workshop">
              To its spec sheets
            </Link>
          </p>
        )}
      </Shell>
    );
  return (
    <SheetForm
      key={code ?? `new ${query.get("copy")}`}
      form={form.data}
      base={code ? from : from && { ...from, code: "" }}
      isNew={!code}
    />
  );
}
