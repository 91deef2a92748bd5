using System.Text;
using System.Text.Json;
using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Vehicles;
using PatientPawl.Data;
using PatientPawl.Web.Measuring;
using PatientPawl.Web.Workshop;

namespace PatientPawl.Web.Vehicles;

/// <summary>A VIN to check.</summary>
public sealed record VinRequest(string Vin);

/// <summary>A figure measured on a car of a sheet.</summary>
public sealed record MeasuredFigure(string Plate, LearntCard Card, LearntFigure Figure);

internal static class VehicleEndpoints
{
    public static void MapVehicles(this RouteGroupBuilder api)
    {
        api.MapGet("/vehicles", (Library library) => TypedResults.Ok(library.Vehicles())).RequireAuthorization();
        // Makers' figures are nobody's secret: the quick benches reckon with them before anyone has signed in.
        api.MapGet("/spec-sheets", (Library library) => TypedResults.Ok(library.Sheets()));
        api.MapGet("/spec-sheets/form", () => TypedResults.Ok(SheetForm.Whole)).RequireAuthorization();
        api.MapPost("/spec-sheets", (SpecSheet sheet, HttpContext http, Library library) =>
        {
            http.RequireLead();
            library.Save(sheet.Checked());
            return TypedResults.Ok(sheet);
        }).RequireAuthorization();
        // What is odd about a sheet and what it leaves open, before it is kept.
        api.MapPost("/spec-sheets/look", (SpecSheet sheet, TimeProvider clock) => TypedResults.Ok(SpecSheetQuestions.Ask(sheet.Checked(), DateOnly.FromDateTime(clock.GetLocalNow().DateTime)))).RequireAuthorization();
        // What was measured on cars of this sheet, for the lead to take over.
        api.MapGet("/spec-sheets/{code}/measured", (string code, Library library, EventStore events) => TypedResults.Ok(library.Vehicles().Where(v => v.SheetCode == code)
            .SelectMany(v => LearntFigures.Of(events.OnVehicle(v.Vehicle.Plate)).Select(f => new MeasuredFigure(v.Vehicle.Plate, LearntFigures.All.First(c => c.Field == f.Field), f))).ToList())).RequireAuthorization();
        api.MapGet("/spec-sheets/{code}/csv", (string code, Library library) => TypedResults.File(Encoding.UTF8.GetBytes(SheetCsv.Write(Find(library, code))), "text/csv", $"{code}.csv")).RequireAuthorization();
        api.MapGet("/spec-sheets/{code}/json", (string code, Library library) => TypedResults.File(JsonSerializer.SerializeToUtf8Bytes(Find(library, code), PawlJson.Options), "application/json", $"{code}.json")).RequireAuthorization();
        api.MapPost("/spec-sheets/csv/read", (CsvText c) => TypedResults.Ok(SheetCsv.Read(c.Text))).RequireAuthorization();
        api.MapPost("/vehicles", (KnownVehicle known, Library library) =>
        {
            if (library.Sheet(known.SheetCode) is null)
                throw new InputException(new InputError("sheetCode", Figure.Shorten(known.SheetCode), "a spec sheet of this workshop", "There is no such spec sheet."));
            var saved = known with { Vehicle = known.Vehicle.Checked() };
            library.Save(saved);
            return TypedResults.Ok(saved);
        }).RequireAuthorization();
        api.MapPost("/bench/vin", (VinRequest request) => TypedResults.Ok(Vin.Check(request.Vin)));
    }

    private static SpecSheet Find(Library library, string code) => library.Sheet(code)
        ?? throw new InputException(new InputError("sheetCode", Figure.Shorten(code), "a spec sheet of this workshop", "There is no such spec sheet."));
}
