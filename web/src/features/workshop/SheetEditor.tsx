import { useQuery } from "@tanstack/react-query";
import { useParams, useSearchParams } from "react-router";
import { queries } from "../../app/queries";
import { ProblemNote } from "../../ui/Problem";
import { Shell } from "../../ui/Shell";
import { SheetForm } from "./SheetForm";

/** Waits for the sheets, then opens the form on the one named, on a copy of it, or empty. */
export function SheetEditor() {
  const { code } = useParams();
  const [query] = useSearchParams();
  const sheets = useQuery(queries.sheets);
  if (!sheets.data)
    return <Shell title="Spec sheet">{sheets.error && <ProblemNote error={sheets.error} />}</Shell>;
  const from = sheets.data.find((s) => s.code === (code ?? query.get("copy")));
  return (
    <SheetForm
      key={code ?? `new ${query.get("copy")}`}
      base={code ? from : from && { ...from, code: "" }}
      isNew={!code}
    />
  );
}
