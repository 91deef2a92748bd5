using PatientPawl.Core;
using PatientPawl.Core.Vehicles;
using PatientPawl.Data;
using PatientPawl.Web.Workshop;

namespace PatientPawl.Web.Vehicles;

/// <summary>A VIN to check.</summary>
public sealed record VinRequest(string Vin);

internal static class VehicleEndpoints
{
    public static void MapVehicles(this RouteGroupBuilder api)
    {
        api.MapGet("/vehicles", (Library library) => TypedResults.Ok(library.Vehicles())).RequireAuthorization();
        api.MapGet("/spec-sheets", (Library library) => TypedResults.Ok(library.Sheets())).RequireAuthorization();
        api.MapPost("/spec-sheets", (SpecSheet sheet, HttpContext http, Library library) =>
        {
            http.RequireLead();
            library.Save(sheet.Checked());
            return TypedResults.Ok(sheet);
        }).RequireAuthorization();
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
}
