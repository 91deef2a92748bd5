using PatientPawl.Core.Identification;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;

namespace PatientPawl.Core.Retraction;

/// <summary>How the piston goes back.</summary>
public enum RetractMethod
{
    /// <summary>Turn and push together.</summary>
    TurnAndPush,
    /// <summary>Straight push.</summary>
    StraightPush,
    /// <summary>Spindle back first, then straight push.</summary>
    SpindleThenPush,
    /// <summary>Spindle back first, then turn and push.</summary>
    SpindleThenTurn,
    /// <summary>Spindle back first; then a gentle push decides between pushing and turning.</summary>
    SpindleThenDecide,
    /// <summary>Turn the hex at the back while pushing.</summary>
    RearHexAndPush,
    /// <summary>Opposed pistons together, neither allowed to creep out.</summary>
    OpposedPush,
    /// <summary>Not covered: the maker's procedure.</summary>
    MakersProcedure,
}

/// <summary>What must be true of the car before the piston is touched.</summary>
public enum RetractPrecondition
{
    /// <summary>The cable is slack.</summary>
    CableSlack,
    /// <summary>The lever rests on its stop.</summary>
    LeverOnStop,
    /// <summary>The puller is in its service position.</summary>
    PullerInService,
    /// <summary>The spindle is known to be back.</summary>
    SpindleBack,
    /// <summary>The reservoir has been looked at and has room.</summary>
    RoomInReservoir,
    /// <summary>Old and new parts have been laid side by side.</summary>
    PartsCompared,
    /// <summary>The boot is free all round.</summary>
    BootFree,
}

/// <summary>Things seen while retracting that stop the work.</summary>
public enum StopSign
{
    /// <summary>The piston comes out instead of going in.</summary>
    ComesOut,
    /// <summary>The piston spins and does not go in.</summary>
    SpinsFree,
    /// <summary>The piston stops short of home.</summary>
    StopsShort,
    /// <summary>The piston springs back when the tool lets go.</summary>
    SpringsBack,
    /// <summary>The boot winds up or tears.</summary>
    BootTwists,
}

/// <summary>A stop sign and what to do about it.</summary>
/// <param name="Sign">The sign.</param>
/// <param name="Name">Its name on the button.</param>
/// <param name="Do">What to do now.</param>
/// <param name="HoldsCorner">True when the corner may not go on until it is settled.</param>
public sealed record StopCard(StopSign Sign, string Name, string Do, bool HoldsCorner)
{
    /// <summary>What this sign means. Empty in a ruling from before it was kept.</summary>
    public string Means { get; init; } = "";

    /// <summary>What has to be so for the corner to go on with the same caliper; null of a sign that does not hold it.</summary>
    public string? GoesOn { get; init; }
}

/// <summary>The ruling for one corner: how the piston goes back.</summary>
/// <param name="Side">The corner.</param>
/// <param name="Architecture">What was identified.</param>
/// <param name="Method">The method.</param>
/// <param name="Headline">The ruling in one line, in the imperative.</param>
/// <param name="Because">The reason in one sentence.</param>
/// <param name="Preconditions">What must be true first.</param>
/// <param name="Tool">The tool.</param>
/// <param name="Direction">Turning direction facing the piston; null for a push.</param>
/// <param name="DirectionIsDefault">True when the sheet gave none.</param>
/// <param name="TwoStage">True when it goes home one way and then the other.</param>
/// <param name="Slots">Slots in the piston's face, for the drawing; 0 for none.</param>
/// <param name="WatchFor">What to watch while doing it.</param>
/// <param name="Stops">When to stop, and what to do.</param>
/// <param name="Condemns">What condemns the caliper.</param>
/// <param name="Never">What is never done.</param>
/// <param name="Reasons">Why.</param>
public sealed record Ruling(
    Side Side, Architecture Architecture, RetractMethod Method, string Headline, string Because, IReadOnlyList<RetractPrecondition> Preconditions,
    string Tool, TurnDirection? Direction, bool DirectionIsDefault, bool TwoStage, int Slots, IReadOnlyList<string> WatchFor,
    IReadOnlyList<StopCard> Stops, IReadOnlyList<string> Condemns, IReadOnlyList<string> Never, Reasons Reasons) : IReasoned
{
    /// <summary>How it is done, in order, with the care that actuator, seal and second stage want. Empty in a ruling from before it was kept.</summary>
    public IReadOnlyList<string> Procedure { get; init; } = [];

    /// <summary>True when the piston is turned on its way home; false when it is pushed, and while only a push will tell.</summary>
    public bool Turned => Direction is not null && Method is not RetractMethod.SpindleThenDecide;
}

/// <summary>Decides how the caliper piston goes back.</summary>
[Engine]
public static class RetractionRuling
{
    /// <summary>
    /// Rules for one corner. The sheet's direction for that side wins; with none, clockwise facing the piston, to be proved
    /// in the first half turn (common practice). While motor-push and motor-turn both stand the method stays undecided
    /// until the spindle is back.
    /// </summary>
    /// <param name="architecture">The architecture ruled for.</param>
    /// <param name="side">The corner.</param>
    /// <param name="piston">The piston's data; null when there is no sheet.</param>
    /// <param name="methodUndecided">True while both motor kinds stand.</param>
    /// <param name="opposed">True where pistons were seen on both sides of the rotor: a form of the service caliper, whatever does the parking.</param>
    public static Ruling Decide(Architecture architecture, Side side, PistonSpec? piston, bool methodUndecided = false, bool opposed = false)
    {
        var method = MethodOf(architecture, methodUndecided, opposed);
        var turns = method is RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn or RetractMethod.RearHexAndPush or RetractMethod.SpindleThenDecide;
        var fromSheet = side == Side.Left ? piston?.DirectionLeft : piston?.DirectionRight;
        TurnDirection? direction = turns ? fromSheet ?? TurnDirection.Clockwise : null;
        var isDefault = turns && fromSheet is null;
        var way = direction == TurnDirection.Anticlockwise ? "anticlockwise" : "clockwise";

        var trail = new Trail("RetractionRuling.Decide")
            .Input("Architecture", architecture.Words(), "evidence-table")
            .Input("Corner", side.Word());
        if (turns)
        {
            _ = isDefault
                ? trail.Default("Direction", $"clockwise facing the {(method == RetractMethod.RearHexAndPush ? "hex" : "piston")}: the face must move inward in the first half turn", "practice-direction")
                : trail.Input("Direction", $"{way} facing the {(method == RetractMethod.RearHexAndPush ? "hex" : "piston")}", "spec-sheet");
        }
        if (architecture is Architecture.MotorPush or Architecture.MotorTurn)
            trail.Evidence("Piston face", "a notched face proves nothing on a motor caliper", "practice-push");
        var headline = Headline(method, way);
        trail.Conclude(headline + ".");
        if (turns && isDefault) trail.WouldChange("A direction on the spec sheet for this side, or a face that moves outward in the first half turn.");
        trail.WouldChange("Another architecture at this corner: a repaired corner can differ from its twin.");

        return new(side, architecture, method, headline, Because(method), Preconditions(architecture), Tool(method, direction, piston), direction, isDefault,
            turns && piston?.TwoStage == true, piston?.Slots ?? 0, WatchFor(method, isDefault, piston), Stops(method), Condemns, Never(method), trail.Done())
        { Procedure = Procedure(architecture, method, direction, piston) };
    }

    private static List<string> Procedure(Architecture architecture, RetractMethod method, TurnDirection? direction, PistonSpec? piston)
    {
        if (method == RetractMethod.MakersProcedure) return [];
        var way = direction == TurnDirection.Anticlockwise ? "anticlockwise" : "clockwise";
        var other = direction == TurnDirection.Anticlockwise ? "clockwise" : "anticlockwise";
        List<string> steps = [];
        if (architecture is Architecture.MotorPush or Architecture.MotorTurn)
        {
            steps.AddRange(
            [
                "By hand only with the actuator off and the car asleep: two small screws, then wriggle it off square.",
                "Turn the spindle, usually clockwise facing it, with light effort until it stops. Never forced, never a powered driver.",
                "Wipe the actuator's ring seal and give it a trace of rubber-safe grease.",
                "The actuator goes home flush by lining up its splines, never by drawing it down with its screws.",
            ]);
        }

        steps.Add("Free the boot all round.");
        steps.AddRange(method switch
        {
            RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn => [direction == TurnDirection.Anticlockwise ? "This thread is left-handed: the left-hand tool, hooked to take the turning reaction." : "Hook the tool to take the turning reaction.", $"Press along the piston and turn it {way}, half a turn at first: the face must move inward."],
            RetractMethod.RearHexAndPush => ["Plug out of the caliper's back.", $"Press along the piston and turn the rear hex {way}, facing the hex: the piston follows it inward.", "Plug back in with its seal."],
            RetractMethod.OpposedPush => ["Spreader between opposite pistons, every other one held by a block.", "Push the pair that stands furthest out, then measure all: none may creep out."],
            RetractMethod.SpindleThenDecide => [$"One gentle push: if it moves, go on pushing; if not, wind it {way}, facing the piston."],
            _ => (IEnumerable<string>)["Press square on the piston, slowly, so that the fluid can leave."],
        });
        if (piston?.TwoStage == true && direction is not null) steps.Add($"Two stages: {way} until it stops, then {other} until home.");
        if (piston is { Slots: > 0 } && method is RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn) steps.Add("End with a slot on the pad pin's axis.");
        steps.Add("Release the tool and look: it must not spring back, and the boot must lie flat.");
        return steps;
    }

    /// <summary>The card of a stop sign.</summary>
    internal static StopCard Stop(StopSign sign) => Stops(RetractMethod.TurnAndPush).First(c => c.Sign == sign);

    /// <summary>The stop signs that apply to a method.</summary>
    internal static IReadOnlyList<StopCard> Stops(RetractMethod method)
    {
        List<StopCard> cards = [new(StopSign.ComesOut, "Comes out", "Wrong direction. Reverse now, half a turn, and look again.", false) { Means = "It is turned the wrong way for this side." }];
        if (method is RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn or RetractMethod.SpindleThenDecide)
        {
            cards.Add(new(StopSign.SpinsFree, "Spins free", "Press harder as you turn. Still free after a whole turn: treat it as stuck.", false)
            {
                Means = "The screw turns and nothing follows it: too little pressure along the piston, or a thread that is gone.",
            });
        }

        cards.Add(new(StopSign.StopsShort, "Stops short", "Stop. Is the mechanism relaxed and is there room for fluid? Then it is stuck, and the caliper is condemned. Never force it.", true)
        {
            Means = "A mechanism that still stands behind it, fluid that cannot leave, the first of two stages, or a piston that is seized.",
            GoesOn = "It moves now: relaxed, or by its second stage",
        });
        cards.Add(new(StopSign.SpringsBack, "Springs back", "Stop. The parking mechanism is still loaded, or the fluid cannot leave: suspect the hose.", true)
        {
            Means = "The parking mechanism is still loaded, or a hose whose inner wall has let go keeps the fluid.",
            GoesOn = "It stays where it was put now",
        });
        cards.Add(new(StopSign.BootTwists, "Boot twists", "Stop. Free the lip all round with rubber-safe grease. Torn, or wet behind: the caliper is condemned.", true)
        {
            Means = "Its lip sticks to the piston and winds up with it: it tears next.",
            GoesOn = "Freed all round: whole and dry",
        });
        return cards;
    }

    /// <summary>How the piston of an architecture goes back. Opposed pistons are a form of the service caliper, whatever does the parking.</summary>
    internal static RetractMethod MethodOf(Architecture architecture, bool undecided, bool opposed) => architecture switch
    {
        Architecture.CableScrew or Architecture.PullerScrew => RetractMethod.TurnAndPush,
        Architecture.MotorPush or Architecture.MotorTurn when undecided => RetractMethod.SpindleThenDecide,
        Architecture.MotorPush => RetractMethod.SpindleThenPush,
        Architecture.MotorTurn => RetractMethod.SpindleThenTurn,
        Architecture.RearHex => RetractMethod.RearHexAndPush,
        Architecture.ElectricOnly => RetractMethod.MakersProcedure,
        _ => BrakeBuild.Of(architecture, opposed, null).Service == ServiceCaliper.Opposed ? RetractMethod.OpposedPush : RetractMethod.StraightPush,
    };

    private static string Headline(RetractMethod method, string way) => method switch
    {
        RetractMethod.TurnAndPush => $"Turn it {way}, facing the piston",
        RetractMethod.StraightPush => "Push it straight in",
        RetractMethod.SpindleThenPush => "Spindle back, then push straight",
        RetractMethod.SpindleThenTurn => $"Spindle back, then turn {way}",
        RetractMethod.SpindleThenDecide => "Spindle back, then try a gentle push",
        RetractMethod.RearHexAndPush => $"Turn the rear hex {way}, facing it, and push",
        RetractMethod.OpposedPush => "Push opposite pistons together",
        _ => "Stop: the maker's procedure",
    };

    private static string Because(RetractMethod method) => method switch
    {
        RetractMethod.TurnAndPush => "A screw inside the piston carries the parking brake: pushed straight, it strips.",
        RetractMethod.StraightPush => "Nothing inside this piston turns.",
        RetractMethod.SpindleThenPush => "The spindle stands behind the piston: with it back, the piston is free to slide.",
        RetractMethod.SpindleThenTurn => "The spindle stands behind the piston, and the piston itself still runs on a thread.",
        RetractMethod.SpindleThenDecide => "Two motor designs are still possible, and only a gentle push with the spindle back parts them.",
        RetractMethod.RearHexAndPush => "The adjuster is reached from behind: the hex winds it back while the piston follows.",
        RetractMethod.OpposedPush => "Fluid leaves one piston and pushes its opposite out unless both are held.",
        _ => "There is no hydraulic piston at this corner.",
    };

    private static IReadOnlyList<RetractPrecondition> Preconditions(Architecture architecture)
    {
        List<RetractPrecondition> list = architecture switch
        {
            Architecture.CableScrew or Architecture.LeverPush or Architecture.RearHex => [RetractPrecondition.CableSlack, RetractPrecondition.LeverOnStop],
            Architecture.PullerScrew => [RetractPrecondition.PullerInService, RetractPrecondition.LeverOnStop],
            Architecture.MotorPush or Architecture.MotorTurn => [RetractPrecondition.SpindleBack],
            _ => [],
        };
        if (architecture != Architecture.ElectricOnly)
            list.AddRange([RetractPrecondition.RoomInReservoir, RetractPrecondition.PartsCompared, RetractPrecondition.BootFree]);
        return list;
    }

    private static string Tool(RetractMethod method, TurnDirection? direction, PistonSpec? piston)
    {
        var face = piston?.Slots switch { 2 => "two-pin drive", 3 => "three-lobe drive", 4 => "cross drive", _ => "drive face to match the piston" };
        var hand = direction == TurnDirection.Anticlockwise ? "left-hand" : "right-hand";
        return method switch
        {
            RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn => $"Wind-back tool, {hand}, {face}, hooked to take the turning reaction",
            RetractMethod.SpindleThenDecide => "Thumbs or a light press first; wind-back tool at hand",
            RetractMethod.RearHexAndPush => "Hex or Allen key at the back, press at the front",
            RetractMethod.OpposedPush => "Spreader between the pistons, both held",
            RetractMethod.MakersProcedure => "None",
            _ => "Press or clamp, square on the piston",
        };
    }

    private static IReadOnlyList<string> WatchFor(RetractMethod method, bool directionIsDefault, PistonSpec? piston)
    {
        List<string> list = [];
        if (method == RetractMethod.MakersProcedure) return ["The job stops here until the maker's procedure is at hand."];
        if (directionIsDefault) list.Add("No direction on the sheet: the face must move inward in the first half turn.");
        list.Add("The boot lies free and does not wind up or bulge.");
        list.Add("The level in the reservoir as it rises.");
        if (piston is { Slots: > 0 } && method is RetractMethod.TurnAndPush or RetractMethod.SpindleThenTurn) list.Add("End with a slot on the pad pin's axis.");
        if (piston?.TwoStage == true) list.Add("Two stages: one way until it stops, then the other way until home.");
        if (method == RetractMethod.OpposedPush) list.Add("The opposite piston does not creep out.");
        return list;
    }

    private static readonly string[] Condemns =
    [
        "No movement with the right method, the right direction, the mechanism relaxed and room for fluid.",
        "A torn boot, or fluid behind it (a reseal only where the maker allows one).",
    ];

    private static IReadOnlyList<string> Never(RetractMethod method) => method switch
    {
        RetractMethod.TurnAndPush => ["Never press it straight in: it strips the screw.", "Never force it past a stop."],
        RetractMethod.SpindleThenPush or RetractMethod.SpindleThenTurn or RetractMethod.SpindleThenDecide =>
            ["Never push against a spindle that is not known to be back.", "Never feed a battery straight to the motor: polarity is a guess and nothing stops it at the end.", "Never a powered driver on the spindle."],
        RetractMethod.MakersProcedure => ["Never improvise on a corner with no hydraulics."],
        _ => ["Never lever against the piston's edge.", "Never force it past a stop."],
    };
}
