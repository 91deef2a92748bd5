using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;

namespace PatientPawl.Core.Jobs;

/// <summary>What to fetch before starting.</summary>
/// <param name="Tools">Tools, in the order they are wanted.</param>
/// <param name="Parts">Parts and consumables.</param>
public sealed record LayOut(IReadOnlyList<string> Tools, IReadOnlyList<string> Parts);

/// <summary>What the rest of a job asks for: tools with their drives and sizes, parts with their numbers.</summary>
public static class LayingOut
{
    /// <summary>Everything for what is left.</summary>
    public static LayOut Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        return new([.. state.Remaining.SelectMany(k => StepCatalogue.Find(k.StepId)!.ToolsIn(state.Setup)).Concat(Drives(state)).Concat(Special(state)).Distinct()], PartsOf(state));
    }

    /// <summary>Parts and materials that the job asks for from here.</summary>
    internal static IReadOnlyList<string> PartsOf(JobState state) =>
    [
        .. Parts(state.Setup, state.Car), .. FindingRules.Parts(state),
        .. state.Remaining.SelectMany(k => StepCatalogue.Find(k.StepId)!.PartsIn(state.Setup)).Where(p => !p.StartsWith("new p", StringComparison.Ordinal)).Distinct(),
        .. Lines(state).Where(l => l.RenewedEveryTime && l.PartNumber is not null).Select(BothSides),
        .. Lines(state).Where(l => l.Locker == Known.Yes).Select(l => $"thread locker for the {Fasteners.Words(l.Role)}s"),
    ];

    /// <summary>Fasteners of a line for both sides, with their number where the sheet has it.</summary>
    internal static string BothSides(TorqueLine line)
    {
        var count = Figure.Count(2 * line.PerCorner, Fasteners.Words(line.Role));
        return line.PartNumber is { } number ? $"{count}, number {number}" : count;
    }

    /// <summary>What is renewed.</summary>
    /// <param name="setup">What is wanted.</param>
    /// <param name="car">How the car stands; null before anything was found.</param>
    public static IReadOnlyList<string> Parts(PlanSetup setup, CarState? car = null)
    {
        ArgumentNullException.ThrowIfNull(setup);
        if (!setup.Identified) return [];
        List<string> list = [];
        if (setup.PadsNew) list.Add($"Rear pad set{(setup.PadsFound ? ", added by a finding" : setup.Scope == JobScope.Shoes ? ", with the new rotors" : "")}");
        if (setup.Rotors) list.Add($"Two rear rotors{(setup.RotorFound ? ", added by a finding" : "")}");
        if (setup.ShoesNew) list.Add($"Parking shoe set with springs and pins{(setup.ShoesFound ? ", added by a finding" : "")}");
        foreach (var side in Core.Sides.Both.Where(s => setup.At(s).CaliperNew)) list.Add($"{(side == Side.Left ? "Left" : "Right")} rear caliper with sealing washers");
        bool Asks(StateVariable<Asked> asked) => car is not null && Core.Sides.Both.Any(s => car.Get(asked, s) != Asked.Nothing);
        if (Asks(Planning.Corner.Hardware)) list.Add("Hardware kit: clips and springs, added by a finding");
        if (Asks(Planning.Corner.PinKit)) list.Add("Slide-pin kit, or a bracket, added by a finding");
        if (setup.AnyCaliperNew || setup.Rules.Bleeding == Workshop.BleedRule.Always || setup.Rules.FluidRoom == Workshop.FluidRoomRule.OpenBleeder) list.Add("Brake fluid for bleeding");
        if (setup.NeedsNewBolts) list.Add("Single-use bolts, both sides");
        return list;
    }

    // What fits each fastener that is still to be torqued.
    private static IEnumerable<string> Drives(JobState state) =>
        Lines(state).Select(l => $"{l.Drive} for the {Fasteners.Words(l.Role)}s{(l.SocketReaches ? "" : ", by crowfoot")}");

    private static IEnumerable<string> Special(JobState state)
    {
        var sheet = state.Opened!.Sheet;
        if (sheet.Rotor.JackingThread is { } thread && Core.Sides.Both.Any(s => state.Remaining.Contains(new("rotor-freed", s)))) yield return $"two jacking screws, {thread}";
        if (sheet.Electric?.SpindleTool is { Length: > 0 } driver && Core.Sides.Both.Any(s => state.Remaining.Contains(new("spindle-back", s)))) yield return $"{driver} for the spindle";
    }

    private static IEnumerable<TorqueLine> Lines(JobState state) =>
        state.Remaining.Select(k => (Role: StepCatalogue.Find(k.StepId)!.Torques, k.Side)).Where(t => t.Role is not null).DistinctBy(t => t.Role)
            .Select(t => state.LineAt(t.Role!.Value, t.Side)).OfType<TorqueLine>();
}
