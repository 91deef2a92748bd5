using PatientPawl.Core.Measuring;
using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Vehicles;

namespace PatientPawl.Core.Jobs;

/// <summary>How a car on the board stands.</summary>
public enum BoardStatus
{
    /// <summary>Nobody has started.</summary>
    NotStarted,
    /// <summary>Someone is at it.</summary>
    InHand,
    /// <summary>It waits for something.</summary>
    Waits,
    /// <summary>Handed over.</summary>
    Finished,
}

/// <summary>One corner on the board.</summary>
/// <param name="TeethDone">Stages behind it, 0 to 11.</param>
/// <param name="Stage">Its stage.</param>
/// <param name="Kind">Its architecture, short.</param>
/// <param name="Says">What was last done or found there.</param>
/// <param name="Stuck">True when a stop sign holds it.</param>
/// <param name="Undecided">True when a verdict there is too close to call.</param>
/// <param name="WheelOff">True when the wheel is off.</param>
/// <param name="Present">True when the next step is here.</param>
public sealed record BoardCorner(int TeethDone, Stage Stage, string Kind, string Says, bool Stuck, bool Undecided, bool WheelOff, bool Present);

/// <summary>One car on the board.</summary>
/// <param name="JobId">The job.</param>
/// <param name="Number">Its number.</param>
/// <param name="Bay">Its bay.</param>
/// <param name="Vehicle">The vehicle.</param>
/// <param name="Status">How it stands.</param>
/// <param name="Lead">The line before the headline: <c>Coble waits for</c>.</param>
/// <param name="Headline">Who waits for what.</param>
/// <param name="Next">What is next.</param>
/// <param name="By">Who was last at it; null when nobody.</param>
/// <param name="Left">Left corner.</param>
/// <param name="Right">Right corner.</param>
/// <param name="MinutesLeft">Minutes left.</param>
public sealed record BoardCard(
    Guid JobId, int Number, int Bay, Vehicle Vehicle, BoardStatus Status, string Lead, string Headline, string Next, string? By, BoardCorner Left, BoardCorner Right, int MinutesLeft)
{
    /// <summary>The card of a job.</summary>
    public static BoardCard Of(Guid jobId, JobState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var opened = state.Opened ?? throw new ArgumentException("The job was never opened.", nameof(state));
        var sheet = RunSheets.Of(state);
        var started = sheet.Done.Count > 0;
        var stuck = Core.Sides.Both.Where(s => state.Corner(s).Stop is not null).ToArray();
        var model = opened.Vehicle.Model;
        var (status, lead, headline) =
            state.HandedOver ? (BoardStatus.Finished, $"{model} waits for", "its driver")
            : state.Awaits is { } parts ? (BoardStatus.Waits, $"{model} waits for", parts.What.ToLowerInvariant())
            : state.Night is not null ? (BoardStatus.Waits, $"{model} waits for", "the morning")
            : stuck.Length > 0 ? (BoardStatus.Waits, $"{model} waits for", stuck.Length == 2 ? "two calipers" : $"a {stuck[0].Word()} caliper")
            : Core.Sides.Both.Where(s => state.Car.Get(Planning.Corner.Doubt, s) == Doubt.Open).Select(s => state.Findings.LastOrDefault(f => f.Side == s && f.Finding.Verdict is Verdict.TooCloseToCall or Verdict.NotYetEnough)).FirstOrDefault(f => f is not null) is { } doubt
                ? (BoardStatus.Waits, $"{model} waits for", $"a {doubt.Finding.Part.ToString().ToLowerInvariant()} verdict")
            : !started ? (BoardStatus.NotStarted, $"{model} waits for", "someone to look")
            : state.Setup.NotCovered is not null ? (BoardStatus.Waits, $"{model} waits for", "the maker's order")
            : sheet.Now is { } now ? (BoardStatus.InHand, $"{model} is at", Say(now)) : (BoardStatus.Waits, $"{model} waits for", "the lead");
        var next = state.HandedOver ? "Record ready to print."
            : state.Awaits is { } from ? $"From {from.From}, since {Figure.Date(DateOnly.FromDateTime(from.Since.Date))}{(from.Expected is { } day ? $", expected {Figure.Date(day)}" : "")}."
            : stuck.Length > 0 ? $"Next: {(sheet.Now is { } n ? Say(n) : "leave the hose shut")}."
            : sheet.Also.Count > 0 ? $"Or: {Say(sheet.Also[0])}. {Duration(sheet.MinutesLeft)} left." : $"{Duration(sheet.MinutesLeft)} left.";
        return new(jobId, opened.Number, opened.Bay, opened.Vehicle, status, lead, headline, next,
            started ? state.Standing.Last().Technician : null, Corner(state, sheet, Side.Left), Corner(state, sheet, Side.Right), sheet.MinutesLeft);
    }

    /// <summary>Minutes as people say them: <c>1 h 14</c> or <c>40 min</c>.</summary>
    public static string Duration(int minutes) => minutes >= 60 ? $"{minutes / 60} h {minutes % 60:00}" : $"{minutes} min";

    private static string Say(StepBench bench) =>
        Phrase.Small(bench.Name) + (bench.Step.Side is { } side ? $", {side.Word()}" : "");

    private static BoardCorner Corner(JobState state, RunSheet sheet, Side side)
    {
        var file = state.Corner(side);
        var lane = side == Side.Left ? SheetLane.Left : SheetLane.Right;
        var mine = sheet.Ahead.Where(a => a.Lane == lane).ToArray();
        // A corner stands at the earliest stage it still has a step in; with none left it goes where the car goes.
        var stage = file.Stop is not null ? Stage.Retract
            : mine.Length > 0 ? mine[0].Stage
            : state.HandedOver ? Stage.Record : sheet.Stage;
        var undecided = state.Car.Get(Planning.Corner.Doubt, side) == Doubt.Open;
        var last = sheet.Done.LastOrDefault(d => d.Lane == lane);
        var says = file.Stop is { } stop ? $"{Retraction.RetractionRuling.Stop(stop.Sign).Name.ToLowerInvariant()}{(file.Travel is { } t ? $", {Figure.Of(t.Travel.Millimeters, 1)} mm to go" : "")}"
            : undecided && state.Findings.LastOrDefault(f => f.Side == side && f.Finding.Verdict is Verdict.TooCloseToCall or Verdict.NotYetEnough) is { } close ? $"{close.Finding.Part.ToString().ToLowerInvariant()} {close.Finding.Verdict.Words()}"
            : last is not null ? $"{last.Name.ToLowerInvariant()}{(last.Detail.Length > 0 && last.Detail.Length < 16 ? $", {last.Detail}" : "")}" : "not looked at";
        return new(state.HandedOver ? 11 : (int)stage, stage, file.Ruled?.Ruling.Architecture is { } a ? a.Card().Short : "brake not known", says, file.Stop is not null,
            undecided, state.Car.Get(Planning.Corner.Wheel, side) == Wheel.Off,
            sheet.Now?.Step.Side == side || (sheet.Now is { Step.Side: null } && mine.Length == 0));
    }
}
