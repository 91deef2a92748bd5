import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { type Schemas } from "../../../app/api";
import { useDraft, useSession } from "../../../app/hooks";
import { queries } from "../../../app/queries";

type Sheet = Schemas["SpecSheet"];

/** What the chosen sheet says for the fields of a bench: by field, with the code it comes from. */
export interface SheetFigures {
  code: string;
  of: Record<string, number | null | undefined>;
}

/** What a field shows of the sheet while nothing is typed in it. */
export interface FromSheet {
  code: string;
  figure: number;
}

export const fromSheet = (figures: SheetFigures | null, key: string): FromSheet | undefined => {
  const figure = figures?.of[key];
  return figure === null || figure === undefined ? undefined : { code: figures!.code, figure };
};

/**
 * The spec sheet that the quick benches reckon with, chosen once for all of them on this device: by its code or by a plate. Nothing is
 * filled in as if it had been typed: an empty field takes the sheet's figure and says so.
 */
export function useBenchSheet(): { sheet: Sheet | null; picker: ReactNode } {
  const [kept, keep] = useDraft("bench sheet");
  const signedIn = !!useSession().data?.me;
  const sheets = useQuery({ ...queries.sheets, staleTime: 60_000 });
  const vehicles = useQuery({
    ...queries.vehicles,
    enabled: signedIn,
    staleTime: 60_000,
  });
  const chosen = kept.of ?? "";
  const code =
    vehicles.data?.find((v) => `plate ${v.vehicle.plate}` === chosen)?.sheetCode ??
    (chosen.startsWith("plate ") ? null : chosen);
  const sheet = sheets.data?.find((s) => s.code === code) ?? null;
  return {
    sheet,
    picker: (
      <label className="field flex-shrink-0">
        <span>Spec sheet, by plate or code</span>
        <select
          aria-label="Spec sheet, by plate or code"
          value={chosen}
          onChange={(e) => keep("of", e.target.value)}
        >
          <option value="">none: type the figures</option>
          {vehicles.data && (
            <optgroup label="Vehicles">
              {vehicles.data.map(({ vehicle, sheetCode }) => (
                <option key={vehicle.plate} value={`plate ${vehicle.plate}`}>
                  {vehicle.plate}, {vehicle.make} {vehicle.model}: {sheetCode}
                </option>
              ))}
            </optgroup>
          )}
          <optgroup label="Sheets">
            {sheets.data?.map((s) => (
              <option key={s.code} value={s.code}>
                {s.code}: {s.title}
              </option>
            ))}
          </optgroup>
        </select>
      </label>
    ),
  };
}
