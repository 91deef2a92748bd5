using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using UnitsNet;

namespace PatientPawl.Core.Rotors;

/// <summary>Cracks in a rotor.</summary>
public enum Cracks
{
    /// <summary>Not looked for.</summary>
    NotLooked,
    /// <summary>None.</summary>
    None,
    /// <summary>Fine surface crazing that reaches neither edge nor hat.</summary>
    Crazing,
    /// <summary>A crack that reaches the edge or runs into the hat.</summary>
    ToEdgeOrHat,
}

/// <summary>Which way curved inner vanes lean going outward, seen from outside the car.</summary>
public enum VaneLean
{
    /// <summary>Straight, or no vanes: the rotor has no side.</summary>
    None,
    /// <summary>Outer ends further round clockwise.</summary>
    Clockwise,
    /// <summary>Outer ends further round anticlockwise.</summary>
    Anticlockwise,
}

/// <summary>What is seen of a rotor.</summary>
/// <param name="Cracks">Cracks.</param>
/// <param name="ScoringDepth">Deepest groove, 0 to 5 mm; null when not measured.</param>
/// <param name="HeatSpots">Blue or hard spots.</param>
/// <param name="Shook">The driver felt it shake when braking.</param>
/// <param name="Vanes">Lean of curved inner vanes.</param>
/// <param name="NeverMachine">The house never machines a rotor that shook.</param>
public sealed record RotorCondition(Cracks Cracks, Length? ScoringDepth, bool HeatSpots, bool Shook, VaneLean Vanes, bool NeverMachine)
{
    /// <summary>Nothing looked at.</summary>
    public static RotorCondition NotLooked { get; } = new(Cracks.NotLooked, null, false, false, VaneLean.None, false);
}

/// <summary>What becomes of a rotor.</summary>
public enum RotorFate
{
    /// <summary>It stays.</summary>
    Keep,
    /// <summary>It stays, turned on its studs.</summary>
    ReIndex,
    /// <summary>It stays, once the hub face is clean.</summary>
    CleanHub,
    /// <summary>It could be machined.</summary>
    Machine,
    /// <summary>It is not passed until more is known.</summary>
    NotPassed,
    /// <summary>It is replaced, with its twin.</summary>
    Replace,
}

/// <summary>The ruling on a rotor.</summary>
/// <param name="Fate">What becomes of it.</param>
/// <param name="Verdict">The same as a verdict: inside stays, outside is replaced.</param>
/// <param name="Says">In words.</param>
/// <param name="Because">Why, one sentence each, the weightiest first.</param>
/// <param name="Reasons">Why, line by line.</param>
public sealed record RotorRuled(RotorFate Fate, Verdict Verdict, string Says, IReadOnlyList<string> Because, Reasons Reasons) : IReasoned;

/// <summary>Whether a rotor's curved vanes suit its side.</summary>
/// <param name="Suits">True when they pump, false when it sits on the wrong side, null when it has no side.</param>
/// <param name="Says">In words.</param>
/// <param name="Reasons">Why.</param>
public sealed record VanesVerdict(bool? Suits, string Says, Reasons Reasons) : IReasoned;

/// <summary>Rules on a rotor: keep, turn on its studs, clean the hub, machine or replace.</summary>
[Engine]
public static class RotorRuling
{
    /// <summary>A groove deeper than this wants a cut: 0.5 mm, our own assumption where the sheet is silent.</summary>
    public static Length DeepScoring { get; } = Length.FromMillimeters(0.5);

    /// <summary>Decides from what has been measured and seen. What condemns comes first; what cannot be passed holds it; then the cures.</summary>
    public static RotorRuled Decide(ThicknessVerdict thickness, RunoutVerdict? runout, HubAndRotorVerdict? apart, RotorCondition condition, Side side)
    {
        ArgumentNullException.ThrowIfNull(thickness);
        ArgumentNullException.ThrowIfNull(condition);
        new Checks().Millimetres("scoringDepthMm", condition.ScoringDepth, 0, 5).ThrowIfAny();
        List<string> replace = [], open = [], wanted = [], cut = [];
        if (condition.Cracks == Cracks.ToEdgeOrHat) replace.Add("A crack to the edge or into the hat condemns it.");
        if (thickness.Minimum.Verdict == Verdict.Outside) replace.Add($"Thinner than its minimum of {Figure.Of(thickness.Minimum.Limit.Millimeters)} mm.");
        if (VanesSuit(condition.Vanes, side) == false) replace.Add($"Its vanes are made for the {side.Other().Word()} side: here they pump no air.");
        if (thickness.Minimum.Verdict == Verdict.TooCloseToCall) open.Add("Its thickness is too close to call.");
        if (thickness.VariationVerdict.Verdict == Verdict.TooCloseToCall) open.Add("Its variation is too close to call.");
        if (condition.Cracks == Cracks.NotLooked) wanted.Add("Look for cracks.");
        if (condition.Shook && runout is null) wanted.Add("It shook: measure its runout.");
        foreach (var place in new[] { thickness.Minimum, thickness.VariationVerdict, runout?.TotalVerdict }.OfType<LimitVerdict>().SelectMany(v => v.Wanted).Distinct())
            wanted.Add($"{Phrase.Capital(place)}.");
        if (thickness.VariationVerdict.Verdict == Verdict.Outside) cut.Add($"Thickness varies by {Figure.Of(thickness.Variation.Millimeters)} mm.");
        if (condition.ScoringDepth is { } deep && deep > DeepScoring) cut.Add($"Scored {Figure.Of(deep.Millimeters)} mm deep.");
        if (condition.HeatSpots) cut.Add("Hard spots come back after a cut: machining is a try, not a cure.");
        if (runout is { ResidualJudged: true, TotalVerdict.Verdict: Verdict.Outside } r && r.Residual > r.TotalVerdict.Limit) cut.Add($"Its own shape makes {Figure.Of(r.Residual.Millimeters)} mm of runout, in any position.");
        if (runout?.TotalVerdict.Verdict == Verdict.Outside && apart?.Blame == RunoutBlame.Passes) cut.Add("Once per turn it passes: what is over the limit is the rotor's own shape.");

        // A runout that does not pass is seen to first: the places that are wanted change nothing there.
        var notYet = wanted.Count > 0 && runout is not { TotalVerdict.Verdict: Verdict.TooCloseToCall or Verdict.Outside };
        var (fate, because) = replace.Count > 0 ? (RotorFate.Replace, replace)
            : cut.Count > 0 && !thickness.Machine.Possible ? (RotorFate.Replace, [.. cut, $"No room to machine: {Figure.Of(thickness.Machine.After.Millimeters)} mm after a cut, {Figure.Of(thickness.Machine.MachineTo.Millimeters)} wanted."])
            : cut.Count > 0 && condition is { Shook: true, NeverMachine: true } ? (RotorFate.Replace, [.. cut, "This house never machines a rotor that shook."])
            : open.Count > 0 ? (RotorFate.NotPassed, [.. open, .. wanted])
            : notYet ? (RotorFate.NotPassed, wanted)
            : cut.Count > 0 ? (RotorFate.Machine, cut)
            : runout is { TotalVerdict.Verdict: Verdict.TooCloseToCall or Verdict.Outside } ? FromRunout(runout, apart)
            : (RotorFate.Keep, (List<string>)[$"Thick enough, even enough, {(condition.Cracks == Cracks.Crazing ? "and crazed only on its surface" : "and no crack")}."]);
        var verdict = fate switch
        {
            RotorFate.Keep => Verdict.Inside,
            RotorFate.Replace => Verdict.Outside,
            RotorFate.NotPassed when open.Count == 0 && notYet => Verdict.NotYetEnough,
            _ => Verdict.TooCloseToCall,
        };
        var says = fate switch
        {
            RotorFate.Keep => "Keep it.",
            RotorFate.ReIndex => "Keep it, turned on its studs.",
            RotorFate.CleanHub => "Clean the hub face, then measure again.",
            RotorFate.Machine => "Machine it, or replace it with its twin.",
            RotorFate.Replace => "Replace it, with its twin on the other side.",
            _ => verdict == Verdict.NotYetEnough ? "Not yet enough." : "Not passed yet.",
        };
        var trail = new Trail("RotorRuling.Decide").Evidence("Thickness", thickness.Minimum.Reasons.Lines[^1].Result).Evidence("Variation", thickness.VariationVerdict.Reasons.Lines[^1].Result);
        if (runout is not null) trail.Evidence("Runout", runout.TotalVerdict.Reasons.Lines[^1].Result);
        if (apart is not null) trail.Evidence("Hub or rotor", apart.Says);
        foreach (var b in because) trail.Evidence("Because", b, "practice-rotor");
        if (condition.NeverMachine) trail.Input("School", "a rotor that shook is never machined", "practice-machining");
        return new(fate, verdict, says, because, trail.Conclude(says).WouldChange("Another reading, a cleaned hub, or a crack found.").Done());
    }

    /// <summary>
    /// Curved inner vanes pump air only when their outer end trails. Rolling forward, a left wheel turns anticlockwise seen from outside and a right
    /// one clockwise; so vanes that lean clockwise going outward belong on the left. Surface slots follow the maker's mark.
    /// </summary>
    public static VanesVerdict Vanes(VaneLean lean, Side side)
    {
        var suits = VanesSuit(lean, side);
        var says = suits switch
        {
            true => $"The vanes' outer ends trail: right for the {side.Word()} side.",
            false => $"The vanes' outer ends lead: this rotor belongs on the {side.Other().Word()} side.",
            _ => "Straight vanes or none: it has no side. Slots in the face follow the maker's L or R mark; without a mark there is no ruling.",
        };
        return new(suits, says, new Trail("RotorRuling.Vanes").Input("Vanes lean, going outward", lean.ToString().ToLowerInvariant()).Evidence("Rolling forward, seen from outside", side == Side.Left ? "anticlockwise" : "clockwise", "geometry").Conclude(says, "practice-rotor").Done());
    }

    private static bool? VanesSuit(VaneLean lean, Side side) => lean == VaneLean.None ? null : lean == VaneLean.Clockwise == (side == Side.Left);

    private static (RotorFate, List<string>) FromRunout(RunoutVerdict runout, HubAndRotorVerdict? apart) => (runout.TotalVerdict.Verdict, apart) switch
    {
        (_, null) => (RotorFate.NotPassed, [$"Runout {Figure.Of(runout.Total.Millimeters)} mm {(runout.TotalVerdict.Verdict == Verdict.Outside ? "is over its limit" : "is too close to call")}: measure again half a turn on, to tell hub from rotor."]),
        (_, { Blame: RunoutBlame.Passes }) => (RotorFate.NotPassed, ["Once per turn it passes, but the total is too close to call: a finer dial settles it."]),
        (_, { Blame: RunoutBlame.ReIndex } a) => (RotorFate.ReIndex, [a.Says]),
        (_, { Blame: RunoutBlame.Hub } a) => (RotorFate.CleanHub, [a.Says]),
        (_, var a) => (RotorFate.Replace, [a!.Says]),
    };
}
