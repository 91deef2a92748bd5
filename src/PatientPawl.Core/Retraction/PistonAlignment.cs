using PatientPawl.Core.Pads;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;
using UnitsNet;

namespace PatientPawl.Core.Retraction;

/// <summary>What a slotted piston is lined up from. Angles facing the piston, clockwise positive, 0 where the caliper's window has its middle.</summary>
/// <param name="Slots">Slots that repeat every 360 / n degrees, 1 to 12.</param>
/// <param name="Present">Where a slot stands now, -360 to 720 degrees.</param>
/// <param name="Wanted">Where one must end: the pad pin's axis, -360 to 720 degrees.</param>
/// <param name="Direction">The retracting direction.</param>
/// <param name="TurnsFreelyAtHome">What the sheet says of turning it on once it is home.</param>
/// <param name="TurnsHome">Turns still to make to home, 0 to 100; null when not known.</param>
/// <param name="Lead">Travel a turn, 0.1 to 10 mm; null when not known.</param>
/// <param name="Need">Travel that the new parts still need from here, 0 to 100 mm; null when not known.</param>
/// <param name="Bottomed">True when it is home already and resists.</param>
/// <param name="Rule">The house rule.</param>
/// <param name="BackOffLimit">Most back-off under the second school, 1 to 360 degrees; null uses the flagged default of 30.</param>
public sealed record AlignmentInput(
    int Slots, Angle Present, Angle Wanted, TurnDirection Direction, Known TurnsFreelyAtHome, double? TurnsHome, Length? Lead, Length? Need, bool Bottomed, AlignmentRule Rule, Angle? BackOffLimit = null);

/// <summary>How a slotted piston comes to stand right.</summary>
public enum AlignAct
{
    /// <summary>It stands right.</summary>
    Aligned,
    /// <summary>Onward in the retracting direction.</summary>
    Onward,
    /// <summary>Home first, then onward: the sheet says that it turns freely there.</summary>
    HomeThenOnward,
    /// <summary>Stop at the last aligned place at or short of home.</summary>
    StopShort,
    /// <summary>Back off a little.</summary>
    BackOff,
    /// <summary>No way that the house rule and the sheet allow.</summary>
    NoWay,
}

/// <summary>How the piston is lined up.</summary>
/// <param name="Pitch">The slots' spacing, 360 / n.</param>
/// <param name="Onward">From here onward to the next aligned place, 0 up to the spacing.</param>
/// <param name="BackOff">From here back to the last one; 0 when it stands right.</param>
/// <param name="BackOffComesOut">How far backing off brings it out; null without a lead.</param>
/// <param name="Act">What to do.</param>
/// <param name="Turn">How far to turn from here, in the retracting direction; below 0 is back.</param>
/// <param name="ShortOfHome">How far short of home it ends; null when not known.</param>
/// <param name="LeavesRoom">False when ending there leaves less travel than the new parts need.</param>
/// <param name="Says">What to do, in words.</param>
/// <param name="Reasons">Why.</param>
public sealed record AlignmentAnswer(
    Angle Pitch, Angle Onward, Angle BackOff, Length? BackOffComesOut, AlignAct Act, Angle Turn, Length? ShortOfHome, bool LeavesRoom, string Says, Reasons Reasons) : IReasoned;

/// <summary>How a caliper is seen by someone facing its piston, standing beside the car.</summary>
/// <param name="Away">Where the middle of its window points, away from the hub, clockwise from upright.</param>
/// <param name="WheelTurns">Which way the wheel turns when driving forward, seen from there.</param>
/// <param name="Says">In words.</param>
/// <param name="Reasons">Why.</param>
public sealed record CaliperView(Angle Away, TurnDirection WheelTurns, string Says, Reasons Reasons) : IReasoned;

/// <summary>Lines a slotted piston up with its pad pin.</summary>
[Engine]
public static class PistonAlignment
{
    /// <summary>Most back-off when the rule does not say: 30 degrees, ours.</summary>
    public static Angle DefaultBackOffLimit { get; } = Angle.FromDegrees(30);

    /// <summary>What a hand can do: 2 degrees either way; the pad's pin has play. Ours, flagged.</summary>
    public static Angle HandTolerance { get; } = Angle.FromDegrees(2);

    private const double Nothing = 0.001;

    /// <summary>
    /// onward = (wanted - present) mod p turning clockwise, (present - wanted) mod p anticlockwise, with p = 360 / n; back-off = p - onward and brings the
    /// piston out by lead × angle / 360. Unless the sheet says that it turns freely at home, it ends at the last aligned place at or
    /// short of home: onward + p × floor((360 × turns home - onward) / p).
    /// </summary>
    /// <exception cref="InputException">Naming each figure outside its range.</exception>
    public static AlignmentAnswer Plan(AlignmentInput input)
    {
        ArgumentNullException.ThrowIfNull(input);
        new Checks().Range("slots", input.Slots, 1, 12, "").Range("presentDeg", input.Present.Degrees, -360, 720, "degrees").Range("wantedDeg", input.Wanted.Degrees, -360, 720, "degrees")
            .Range("turnsHome", input.TurnsHome, 0, 100, "turns").Millimetres("leadMm", input.Lead, 0.1, 10).Millimetres("needMm", input.Need, 0, 100).Range("backOffLimitDeg", input.BackOffLimit?.Degrees, 1, 360, "degrees").ThrowIfAny();
        var p = 360.0 / input.Slots;
        var clockwise = input.Direction == TurnDirection.Clockwise;
        var (a, t) = (input.Present.Degrees, input.Wanted.Degrees);
        var onward = Mod(clockwise ? t - a : a - t, p);
        var hand = HandTolerance.Degrees;
        var within = Math.Min(onward, p - onward) <= hand + Nothing;
        if (within) onward = 0;
        var back = onward == 0 ? 0 : p - onward;
        double? lead = input.Lead?.Millimeters;
        double? comesOut = back * lead / 360;
        var trail = new Trail("PistonAlignment.Plan")
            .Input("Slots", $"{input.Slots}, every {Figure.Of(p)} degrees").Input("Slot now, wanted", $"{Figure.Of(a)}, {Figure.Of(t)} degrees, clockwise facing the piston")
            .Formula("Onward", clockwise ? "(wanted - now) mod spacing" : "(now - wanted) mod spacing", clockwise ? $"({Figure.Of(t)} - {Figure.Of(a)}) mod {Figure.Of(p)}" : $"({Figure.Of(a)} - {Figure.Of(t)}) mod {Figure.Of(p)}", Degrees(onward), "geometry")
            .Formula("Back-off", "spacing - onward", $"{Figure.Of(p)} - {Figure.Of(onward)}", Degrees(back), "geometry");
        if (within) trail.Default("A hand's tolerance", $"{Degrees(hand)} either way", "practice-alignment");
        if (comesOut is { } outBy) trail.Formula("Back-off brings it out", "lead × angle / 360", $"{Figure.Of(lead!.Value)} × {Figure.Of(back)} / 360", $"{Figure.Of(outBy, 2)} mm", "geometry");
        trail.Input("Turns freely at home", input.TurnsFreelyAtHome switch { Known.Yes => "yes", Known.No => "no", _ => "not known: it is never forced on past home" }, "spec-sheet");

        var limit = (input.BackOffLimit ?? DefaultBackOffLimit).Degrees;
        if (input.Rule == AlignmentRule.BackOffAllowed && input.BackOffLimit is null) trail.Default("Most back-off", Degrees(limit), "practice-back-off");

        // Without the turns to home the two ways can only be named.
        var (act, turn) = input.Bottomed || input.TurnsHome is 0 ? AtHome() : input.TurnsHome is { } turns ? OnTheWay(turns) : (onward == 0 ? AlignAct.Aligned : AlignAct.Onward, onward);
        double? shortBy = lead is { } ld && (input.Bottomed ? 0 : input.TurnsHome) is { } toHome ? Math.Max((360 * toHome - turn) * ld / 360, 0) : null;
        var travel = turn * lead / 360;
        // Past home a piston turns without going in.
        if (act == AlignAct.HomeThenOnward) travel = input.TurnsHome * lead;
        var leavesRoom = act == AlignAct.NoWay || input.Need is not { } need || travel is not { } made || made >= need.Millimeters - 1e-6;
        var says = Says(act, turn, back, shortBy, comesOut, limit, input, leavesRoom);
        trail.Conclude(says).WouldChange("The sheet saying whether it turns freely at home.").WouldChange("The house rule of piston alignment.");
        return new(Angle.FromDegrees(p), Angle.FromDegrees(onward), Angle.FromDegrees(back), Mm(comesOut), act, Angle.FromDegrees(turn), Mm(shortBy), leavesRoom, says, trail.Done());

        (AlignAct, double) AtHome() =>
            onward == 0 ? (AlignAct.Aligned, 0)
            : input.TurnsFreelyAtHome == Known.Yes && !input.Bottomed ? (AlignAct.HomeThenOnward, onward)
            : BackOffOr(-back);

        (AlignAct, double) OnTheWay(double toHome)
        {
            var whole = (360 * toHome - onward) / p;
            if (input.TurnsFreelyAtHome == Known.Yes) return (AlignAct.HomeThenOnward, onward + p * Math.Ceiling(whole - 1e-9));
            var stop = onward + p * Math.Floor(whole + 1e-9);
            trail.Formula("Last aligned place", "onward + spacing × floor((360 × turns home - onward) / spacing)", $"{Figure.Of(onward)} + {Figure.Of(p)} × floor((360 × {Figure.Of(toHome)} - {Figure.Of(onward)}) / {Figure.Of(p)})", Degrees(stop), "geometry");
            return stop < -Nothing ? BackOffOr(stop) : (stop < Nothing && onward == 0 ? AlignAct.Aligned : AlignAct.StopShort, Math.Max(stop, 0));
        }

        (AlignAct, double) BackOffOr(double by) => input.Rule == AlignmentRule.BackOffAllowed && -by <= limit + Nothing ? (AlignAct.BackOff, by) : (AlignAct.NoWay, 0);
    }

    /// <summary>
    /// How the caliper is seen facing its piston. Standing at the left side the front of the car is on the left hand, at the right side on the right: a caliper
    /// ahead of the axle points forward, one behind it backward.
    /// </summary>
    public static CaliperView Facing(Side side, CaliperPlace place)
    {
        var away = side == Side.Left == (place == CaliperPlace.AheadOfAxle) ? 270 : 90;
        var wheel = side == Side.Left ? TurnDirection.Anticlockwise : TurnDirection.Clockwise;
        var says = $"{(side == Side.Left ? "Left" : "Right")} corner, caliper {(place == CaliperPlace.AheadOfAxle ? "ahead of" : "behind")} the axle: its window points to your {(away == 270 ? "left" : "right")}; driving forward the wheel turns {(wheel == TurnDirection.Clockwise ? "clockwise" : "anticlockwise")} as you see it.";
        return new(Angle.FromDegrees(away), wheel, says, new Trail("PistonAlignment.Facing").Input("Corner", side.Word()).Input("Caliper", place == CaliperPlace.AheadOfAxle ? "ahead of the axle" : "behind the axle").Conclude(says, "geometry").Done());
    }

    private static string Says(AlignAct act, double turn, double back, double? shortBy, double? comesOut, double limit, AlignmentInput input, bool leavesRoom)
    {
        var turns = Math.Abs(turn) >= 360 ? $"{Figure.Count(Math.Floor(Math.Abs(turn) / 360), "turn")} and {Degrees(Math.Abs(turn) % 360)}" : Degrees(Math.Abs(turn));
        var says = act switch
        {
            AlignAct.Aligned => "A slot stands on the pin's axis. Leave it.",
            AlignAct.Onward => $"Onward {turns}, or plan it before home.",
            AlignAct.HomeThenOnward => $"Home, then onward: {turns} from here.",
            AlignAct.StopShort => $"Stop after {turns}{(shortBy is { } s && s >= 0.005 ? $", {Figure.Of(s, 2)} mm short of home" : "")}: a slot stands right there. Past home it may bind: never force it on.",
            AlignAct.BackOff => $"Back off {turns}{(comesOut is { } o ? $"; it comes out {Figure.Of(o, 2)} mm" : "")}.",
            _ => input.Rule == AlignmentRule.OnwardOnly
                ? "It cannot be lined up from here: onward would force it, and the house rule allows no back-off. Ask the lead."
                : $"It cannot be lined up from here: onward would force it, and the back-off of {Degrees(back)} is over the limit of {Degrees(limit)}. Ask the lead.",
        };
        return leavesRoom ? says : says + " That leaves less room than the new parts need: the pads will not go over the rotor.";
    }

    private static double Mod(double value, double by) => (value % by + by) % by;
    private static string Degrees(double value) => $"{Figure.Of(value, 1)}°";
    private static Length? Mm(double? value) => value is { } v ? Length.FromMillimeters(v) : null;
}
