using PatientPawl.Core;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Retraction;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Shoes;
using PatientPawl.Core.Workshop;
using PatientPawl.Data;
using PatientPawl.Web.Jobs;

namespace PatientPawl.Web.Measuring;

/// <summary>Readings of one corner.</summary>
public sealed record CornerReadings(Side Side, IReadOnlyList<ReadingIn> Readings);

/// <summary>A line of a piston's log, with the instrument it was read from.</summary>
public sealed record LoggedPoint(LogPoint Point, string InstrumentId);

/// <summary>What a quick bench knows, put into a job at once: readings, what was looked at, lines of a log. All of it is stored, or none.</summary>
/// <param name="EventId">Made by the client.</param>
/// <param name="OccurredAt">The client's clock.</param>
/// <param name="Side">The corner that looks and lines belong to.</param>
/// <param name="Readings">Readings by corner.</param>
/// <param name="Shoes">What was seen of the shoes; null where they were not looked at.</param>
/// <param name="Rotor">What was seen of the rotor; null where it was not looked at.</param>
/// <param name="Pads">What was seen of the pads; null where they were not looked at.</param>
/// <param name="Points">Lines of a piston's log, in their order.</param>
public sealed record AttachBench(Guid EventId, DateTimeOffset OccurredAt, Side Side, IReadOnlyList<CornerReadings> Readings, ShoeFacts? Shoes, RotorFacts? Rotor, PadFacts? Pads,
    IReadOnlyList<LoggedPoint> Points) : ICommand
{
    // A log has tens of lines, and a bench two corners.
    private const int Most = 200;

    /// <summary>Each event that it comes to.</summary>
    /// <exception cref="InputException">Nothing to attach, or more than a job takes at once.</exception>
    internal IReadOnlyList<Func<JobState, Technician, JobEvent>> Each(ToolBoard board)
    {
        List<Func<JobState, Technician, JobEvent>> each = [];
        foreach (var r in Readings) each.Add((s, _) => JobRules.Take(s, r.Side, ReadingIn.Resolve(r.Readings, board), board.Today));
        if (Shoes is { } shoes) each.Add((s, _) => JobRules.LookAtShoes(s, Side, shoes));
        if (Rotor is { } rotor) each.Add((s, _) => JobRules.LookAtRotor(s, Side, rotor));
        if (Pads is { } pads) each.Add((s, _) => JobRules.LookAtPads(s, pads));
        foreach (var p in Points) each.Add((s, _) => JobRules.NotePoint(s, Side, p.Point, p.InstrumentId, board));
        if (each.Count is 0 or > Most)
            throw new InputException(new InputError("attached", Figure.Of(each.Count), $"1 to {Most}", $"From 1 to {Most} entries are attached at once; {each.Count} were sent."));
        return each;
    }
}
