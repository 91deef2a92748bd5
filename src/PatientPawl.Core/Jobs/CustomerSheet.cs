using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Jobs;

/// <summary>A part as it came off or stays on, for a drawing of how much of it was left.</summary>
/// <param name="About">What, and where.</param>
/// <param name="Says">In plain words.</param>
/// <param name="Left">What was left of it.</param>
/// <param name="New">What a new one has.</param>
/// <param name="Least">What it must have.</param>
/// <param name="Renewed">True where a new one is on the car now.</param>
public sealed record WornPart(Subject About, string Says, Length Left, Length New, Length Least, bool Renewed);

/// <summary>The sheet for whoever owns the car: one page in plain words.</summary>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="On">The day.</param>
/// <param name="OdometerKm">Its odometer.</param>
/// <param name="Number">The job's number.</param>
/// <param name="YouSaid">What the driver said.</param>
/// <param name="Done">What was done, a sentence each.</param>
/// <param name="Worn">How much was left of the linings and rotors.</param>
/// <param name="ForYou">What the driver does, and what is normal.</param>
/// <param name="HandedOver">False while it is not finished: then it is no sheet to hand out.</param>
/// <param name="Purpose">What the job is for.</param>
public sealed record CustomerSheet(
    Vehicle Vehicle, DateOnly On, int OdometerKm, int Number, string YouSaid, IReadOnlyList<string> Done, IReadOnlyList<WornPart> Worn,
        IReadOnlyList<string> ForYou, bool HandedOver, JobPurpose Purpose)
{
    /// <summary>The sheet of a job.</summary>
    public static CustomerSheet Of(JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var opened = state.Opened ?? throw new ArgumentException("The job was never opened.", nameof(state));
        return new(
            opened.Vehicle, DateOnly.FromDateTime(state.Log[^1].RecordedAt.UtcDateTime), opened.OdometerKm, opened.Number,
                opened.Complaint, [.. WhatWasDone(state)],
            [.. Sides.Both.SelectMany(s => PartsOf(state, s))],
                [.. JobRecord.ToldToTheDriver(state), .. JobRecord.LeftOpen(JobRecord.VerdictsOf(state), state)], state.HandedOver,
                opened.Purpose);
    }

    private static IEnumerable<string> WhatWasDone(JobState state)
    {
        foreach (var part in JobRecord.FittedIn(state)) yield return part;
        if (state.Setup.InspectOnly) yield return "The rear brakes were looked at and measured; nothing was renewed.";
        if (state.Setup.IsElectric && state.Car.Get(Planning.Car.Closing) == Closing.Cycled)
            yield return "The electric parking brake was put into its service position, closed again and cycled.";
        if (state.Car.Get(Planning.Car.TestDrive) == Planning.Done.Yes)
            yield return "The car was driven: it stops straight" + (state.Setup.IsPlain ? "." : ", and the parking brake holds.");
        if (state.BedIn is { Driven: > 0 and var driven }) yield return $"The new linings were bedded in: {Figure.Count(driven, "stop")}.";
    }

    private static IEnumerable<WornPart> PartsOf(JobState state, Side side)
    {
        var sheet = state.Opened!.Sheet;
        var pads = state.Car.Get(Planning.Corner.Pads, side) == PadState.New;
        var rotor = state.Car.Get(Planning.Corner.Rotor, side) == Rotor.New;
        foreach (var (judged, name, fresh, renewed) in new[]
        {
            (Judged.InnerLining, "Inner pad", sheet.Pads.NewInnerTotal - sheet.Pads.Backing, pads),
            (Judged.OuterLining, "Outer pad", sheet.Pads.NewOuterTotal - sheet.Pads.Backing, pads),
            (Judged.RotorThickness, "Rotor (brake disc)", sheet.Rotor.NewThickness, rotor),
        })
        {
            if (state.Corner(side).Verdicts.Where(v => v.Subject?.Judged == judged).MinBy(v => v.Value) is not { } v) continue;
            var now = renewed ? "Renewed." : v.Verdict == Verdict.Inside ? "It stays." : "It stays, and is not passed.";
            var (left, whole, least) = (Mm(v.Value), Mm(fresh), Mm(v.Limit));
            var says = $"{name}, {side.Word()}: {left} of {whole} left, at least {least} is needed. {now}";
            yield return new(new(judged, side), says, v.Value, fresh, v.Limit, renewed);
        }
    }

    private static string Mm(Length length) => $"{Figure.Of(length.Millimeters, 1)} mm";
}
