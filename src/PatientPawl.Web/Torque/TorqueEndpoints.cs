using PatientPawl.Core;
using PatientPawl.Core.Torque;
using PatientPawl.Data;
using UnitsNet;

namespace PatientPawl.Web.Torque;

/// <summary>A quick bench for torque. The unit is always chosen.</summary>
public sealed record TorqueRequest(
    FastenerRole Role, double Value, string Unit, double? HighValue, Length? ThreadDiameter, Length? ThreadPitch, PropertyClass Class, string? WrenchId, Crowfoot? Crowfoot);

/// <summary>A fastener line of a sheet with a wrench, for the bench of a torque step.</summary>
public sealed record TorqueLineRequest(TorqueLine Line, string? WrenchId, Crowfoot? Crowfoot);

/// <summary>What to set the wrench to, and which wrenches would serve.</summary>
public sealed record TorqueAnswer(TorqueSet Set, Wrench? Wrench, IReadOnlyList<string> WrenchesThatServe);

internal static class TorqueEndpoints
{
    public static void MapTorque(this RouteGroupBuilder api)
    {
        api.MapPost("/bench/torque", (TorqueRequest r, Library library, TimeProvider clock) =>
        {
            var unit = TorqueReading.Unit(r.Unit);
            var low = TorqueReading.From(r.Value, unit);
            UnitsNet.Torque? high = r.HighValue is { } h ? TorqueReading.From(h, unit, "highValue") : null;
            return TypedResults.Ok(Answer(new(r.Role, 1, r.ThreadDiameter, r.ThreadPitch, r.Class, "as found", low, high, false, r.Crowfoot is null, false, null) { Typed = true }, r.WrenchId, r.Crowfoot, library, clock));
        });
        api.MapPost("/bench/torque-line", (TorqueLineRequest r, Library library, TimeProvider clock) =>
            TypedResults.Ok(Answer(r.Line, r.WrenchId, r.Crowfoot, library, clock)));
    }

    private static TorqueAnswer Answer(TorqueLine line, string? wrenchId, Crowfoot? crowfoot, Library library, TimeProvider clock)
    {
        var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
        var wrenches = library.Wrenches();
        var choice = WrenchChoice.For(line, wrenches, crowfoot, today);
        var wrench = wrenchId is null ? choice.Take : Find(wrenches, wrenchId);
        return new(TorqueSetting.Compute(line, wrench, wrench is null ? null : crowfoot, today), wrench, [.. choice.Serving.Select(w => w.Id)]);
    }

    internal static Wrench Find(IReadOnlyList<Wrench> wrenches, string id) => wrenches.FirstOrDefault(w => w.Id == id)
        ?? throw new InputException(new InputError("wrenchId", Figure.Shorten(id), wrenches.Count == 0 ? "none: the workshop has no wrench yet" : string.Join(", ", wrenches.Select(w => w.Id)), "There is no such wrench in the workshop."));
}
