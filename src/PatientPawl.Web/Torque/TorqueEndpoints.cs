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
            return TypedResults.Ok(Answer(new(r.Role, 1, r.ThreadDiameter, r.ThreadPitch, r.Class, "as found", low, high, false, r.Crowfoot is null, false, null), r.WrenchId, r.Crowfoot, library, clock));
        });
        api.MapPost("/bench/torque-line", (TorqueLineRequest r, Library library, TimeProvider clock) =>
            TypedResults.Ok(Answer(r.Line, r.WrenchId, r.Crowfoot, library, clock)));
    }

    private static TorqueAnswer Answer(TorqueLine line, string? wrenchId, Crowfoot? crowfoot, Library library, TimeProvider clock)
    {
        var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
        var wrenches = library.Wrenches();
        // The smallest wrench that serves shows the figure best.
        var serving = wrenches.Where(w => (crowfoot is null || crowfoot.Extension < w.GripLength) && TorqueSetting.Compute(line, w, crowfoot, today).WrenchServes)
            .OrderBy(w => w.Maximum.NewtonMeters).ToList();
        // Where none serves, the one that comes nearest says why not: a crowfoot is never quietly left out.
        var wrench = wrenchId is not null ? Find(wrenches, wrenchId) : serving.FirstOrDefault()
            ?? wrenches.Where(w => crowfoot is null || crowfoot.Extension < w.GripLength).MinBy(w => (w.CalibratedUntil < today, Math.Abs(Math.Log(w.Maximum.NewtonMeters / line.Wanted.NewtonMeters))));
        return new(TorqueSetting.Compute(line, wrench, wrench is null ? null : crowfoot, today), wrench, [.. serving.Select(w => w.Id)]);
    }

    internal static Wrench Find(IReadOnlyList<Wrench> wrenches, string id) => wrenches.FirstOrDefault(w => w.Id == id)
        ?? throw new InputException(new InputError("wrenchId", Figure.Shorten(id), wrenches.Count == 0 ? "none: the workshop has no wrench yet" : string.Join(", ", wrenches.Select(w => w.Id)), "There is no such wrench in the workshop."));
}
