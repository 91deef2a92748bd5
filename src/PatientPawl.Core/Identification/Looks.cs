using PatientPawl.Core.Retraction;

namespace PatientPawl.Core.Identification;

/// <summary>The rear parking-brake architectures.</summary>
public enum Architecture
{
    /// <summary>Cable and lever on the caliper, a screw inside.</summary>
    CableScrew,
    /// <summary>As cable-screw, the cables pulled by one electric box in the body.</summary>
    PullerScrew,
    /// <summary>Cable lever outside, yet the piston pushes straight.</summary>
    LeverPush,
    /// <summary>Motor and gear on the caliper; spindle back, then straight push.</summary>
    MotorPush,
    /// <summary>Motor and gear on the caliper; spindle back, then the piston is wound.</summary>
    MotorTurn,
    /// <summary>Cable-worked shoes inside the rotor hat.</summary>
    HatShoes,
    /// <summary>Shoes in the hat, the cables pulled by an electric box.</summary>
    PullerHat,
    /// <summary>A motor at the backing plate works the shoes.</summary>
    MotorHat,
    /// <summary>Opposed-piston fixed caliper with shoes in the hat.</summary>
    FixedHat,
    /// <summary>A second small caliper does the parking.</summary>
    SpotCaliper,
    /// <summary>Integral caliper with its adjuster under a plug at the back.</summary>
    RearHex,
    /// <summary>Sliding caliper with no parking function here.</summary>
    Plain,
    /// <summary>No hydraulics at the corner.</summary>
    ElectricOnly,
}

/// <summary>A thing that can be looked at on a corner.</summary>
public enum Look
{
    /// <summary>The parking control in the cabin.</summary>
    CabinControl,
    /// <summary>Pedal feel is simulated, brake by wire.</summary>
    BrakeByWire,
    /// <summary>An electric cable-puller box in the body.</summary>
    PullerBox,
    /// <summary>A cable lever with its spring on the caliper.</summary>
    CaliperLever,
    /// <summary>A motor with a plug on the caliper.</summary>
    CaliperMotor,
    /// <summary>A cable or conduit going into the backing plate.</summary>
    PlateCable,
    /// <summary>A motor at the backing plate.</summary>
    PlateMotor,
    /// <summary>A second, small caliper.</summary>
    SecondCaliper,
    /// <summary>A plug or inspection hole in the rotor hat or backing plate.</summary>
    HatHole,
    /// <summary>A hydraulic hose at the corner.</summary>
    BrakeHose,
    /// <summary>Pistons on both sides of the rotor.</summary>
    OpposedPistons,
    /// <summary>A hex under a cap at the caliper's back.</summary>
    RearHexPlug,
    /// <summary>The drive pattern in the piston's face.</summary>
    PistonFace,
    /// <summary>A pin on the inner pad's back.</summary>
    PadPin,
    /// <summary>The inner pad's spring clip inside the piston.</summary>
    PadSpringClip,
    /// <summary>A gentle straight push moves the piston. Answered only with the mechanism known to be relaxed.</summary>
    PushMoves,
}

/// <summary>What was seen.</summary>
public enum Seen
{
    /// <summary>Yes, it is there; or, it moves.</summary>
    Yes,
    /// <summary>No, it is not there; or, it does not move.</summary>
    No,
    /// <summary>Asked, and nobody knows yet.</summary>
    NotKnown,
    /// <summary>Cabin control: a hand lever.</summary>
    HandLever,
    /// <summary>Cabin control: a foot pedal.</summary>
    FootPedal,
    /// <summary>Cabin control: a switch.</summary>
    Switch,
    /// <summary>Piston face: a plain cup.</summary>
    PlainCup,
    /// <summary>Piston face: two notches or holes.</summary>
    TwoNotches,
    /// <summary>Piston face: a four-slot cross.</summary>
    Cross,
    /// <summary>Piston face: three lobes.</summary>
    ThreeLobes,
    /// <summary>Piston face: a V.</summary>
    VShape,
}

/// <summary>How much must come apart before a look can be had.</summary>
public enum LookReach
{
    /// <summary>From the cabin.</summary>
    Cabin,
    /// <summary>From outside, wheel on.</summary>
    WheelOn,
    /// <summary>With the wheel off.</summary>
    WheelOff,
    /// <summary>With the caliper off.</summary>
    CaliperOff,
    /// <summary>The push test, mechanism relaxed.</summary>
    PushTest,
}

/// <summary>What a look asks, its possible answers and how far one must reach.</summary>
/// <param name="Look">The look.</param>
/// <param name="Question">The question, short.</param>
/// <param name="Name">Its name, at most 17 characters.</param>
/// <param name="Reach">How much must come apart.</param>
/// <param name="Answers">The answers that can be given.</param>
public sealed record LookCard(Look Look, string Question, string Name, LookReach Reach, IReadOnlyList<Seen> Answers);

/// <summary>One observation at one corner.</summary>
/// <param name="Look">What was looked at.</param>
/// <param name="Seen">What was seen.</param>
public sealed record Observation(Look Look, Seen Seen);

/// <summary>All looks, in the order of least dismantling.</summary>
public static class LookCatalogue
{
    private static readonly Seen[] YesNo = [Seen.Yes, Seen.No];

    /// <summary>The cards.</summary>
    public static IReadOnlyList<LookCard> All { get; } =
    [
        new(Look.CabinControl, "How is the parking brake worked?", "Cabin control", LookReach.Cabin, [Seen.HandLever, Seen.FootPedal, Seen.Switch]),
        new(Look.BrakeByWire, "Is the pedal feel simulated, brake by wire?", "Brake by wire", LookReach.Cabin, [Seen.Yes, Seen.No, Seen.NotKnown]),
        new(Look.PullerBox, "Is there a cable-puller box?", "Puller box", LookReach.WheelOn, YesNo),
        new(Look.CaliperLever, "Is there a cable lever on the caliper?", "Cable lever", LookReach.WheelOn, YesNo),
        new(Look.CaliperMotor, "Is there a motor on the caliper?", "Motor, plug", LookReach.WheelOn, YesNo),
        new(Look.PlateCable, "Does a cable go into the backing plate?", "Cable in plate", LookReach.WheelOn, YesNo),
        new(Look.PlateMotor, "Is there a motor on the backing plate?", "Motor on plate", LookReach.WheelOn, YesNo),
        new(Look.SecondCaliper, "Is there a second, small caliper?", "Second caliper", LookReach.WheelOn, YesNo),
        new(Look.BrakeHose, "Is there a brake hose?", "Brake hose", LookReach.WheelOn, YesNo),
        new(Look.HatHole, "Is there a plug in the hat or plate?", "Plug in the hat", LookReach.WheelOff, YesNo),
        new(Look.OpposedPistons, "Are there pistons on both sides?", "Opposed", LookReach.WheelOff, YesNo),
        new(Look.RearHexPlug, "Is there a hex under a cap at the back?", "Hex at back", LookReach.WheelOff, YesNo),
        new(Look.PistonFace, "What is in the piston's face?", "Piston face", LookReach.CaliperOff, [Seen.PlainCup, Seen.TwoNotches, Seen.Cross, Seen.ThreeLobes, Seen.VShape]),
        new(Look.PadPin, "Has the inner pad a pin on its back?", "Pad pin", LookReach.CaliperOff, YesNo),
        new(Look.PadSpringClip, "Does the inner pad clip into the piston?", "Pad clip", LookReach.CaliperOff, YesNo),
        new(Look.PushMoves, "Does it slide in?", "Push by hand", LookReach.PushTest, YesNo),
    ];

    /// <summary>The card of a look.</summary>
    public static LookCard Card(this Look look) => All.First(c => c.Look == look);

    /// <summary>
    /// Refuses an answer the look cannot have.
    /// </summary>
    /// <exception cref="InputException">Naming the field <c>seen</c> and the allowed answers.</exception>
    public static void Check(Observation observation)
    {
        ArgumentNullException.ThrowIfNull(observation);
        if (!Enum.IsDefined(observation.Look)) throw new InputException(new InputError("look", observation.Look.ToString(), "a known look", "That look is not one this product knows."));
        var card = observation.Look.Card();
        if (card.Answers.Contains(observation.Seen)) return;
        var allowed = string.Join(", ", card.Answers.Select(Words));
        throw new InputException(new InputError("seen", Words(observation.Seen), allowed, $"{card.Name} cannot be answered with {Words(observation.Seen)}. Allowed: {allowed}."));
    }

    /// <summary>The answer in words.</summary>
    public static string Words(Seen seen) => seen switch
    {
        Seen.NotKnown => "not known",
        Seen.HandLever => "hand lever",
        Seen.FootPedal => "foot pedal",
        Seen.PlainCup => "plain cup",
        Seen.TwoNotches => "two notches",
        Seen.ThreeLobes => "three lobes",
        Seen.VShape => "V",
        _ => seen.ToString().ToLowerInvariant(),
    };

    /// <summary>The observation in words, for example <c>No cable lever</c>.</summary>
    public static string Words(Observation observation)
    {
        ArgumentNullException.ThrowIfNull(observation);
        return (observation.Look, observation.Seen) switch
        {
            (Look.CabinControl, var s) => $"Cabin: {Words(s)}",
            (Look.PistonFace, var s) => $"Face: {Words(s)}",
            (Look.BrakeByWire, Seen.NotKnown) => "Brake by wire not known",
            (Look.BrakeHose, Seen.Yes) => "Hose is there",
            (Look.BrakeHose, Seen.No) => "No brake hose",
            (Look.OpposedPistons, Seen.No) => "Not opposed",
            (Look.PushMoves, Seen.Yes) => "It slides in",
            (Look.PushMoves, Seen.No) => "It stays put",
            (var l, Seen.Yes) => l.Card().Name,
            (var l, _) => $"No {char.ToLowerInvariant(l.Card().Name[0])}{l.Card().Name[1..]}",
        };
    }
}

/// <summary>An architecture's names for people, and how its piston goes back in a few words.</summary>
/// <param name="Architecture">The architecture.</param>
/// <param name="Name">Its name.</param>
/// <param name="Back">How its piston goes back.</param>
/// <param name="Short">Its name where room is short.</param>
public sealed record ArchitectureCard(Architecture Architecture, string Name, string Back, string Short)
{
    /// <summary>True where its service caliper can have pistons on both sides of the rotor.</summary>
    public bool MayBeOpposed => RetractionRuling.MethodOf(Architecture, false, true) == RetractMethod.OpposedPush;

    /// <summary>True where it always has.</summary>
    public bool IsOpposed => RetractionRuling.MethodOf(Architecture, false, false) == RetractMethod.OpposedPush;
}

/// <summary>All architectures in words.</summary>
public static class ArchitectureCatalogue
{
    /// <summary>The cards, in the order of <see cref="Architecture"/>.</summary>
    public static IReadOnlyList<ArchitectureCard> All { get; } =
    [
        new(Architecture.CableScrew, "Cable lever, screw inside", "turn and push together", "cable caliper, wind in"),
        new(Architecture.PullerScrew, "Cable puller, screw inside", "puller in service, then turn and push", "puller caliper, wind in"),
        new(Architecture.LeverPush, "Cable lever, straight push", "straight push, only where the sheet says so", "cable caliper, push straight"),
        new(Architecture.MotorPush, "Motor, straight push", "spindle back, then push", "motor caliper, push straight"),
        new(Architecture.MotorTurn, "Motor, turn", "spindle back, then turn and push", "motor caliper, wind in"),
        new(Architecture.HatShoes, "Shoes in the hat, cable", "straight push", "drum-in-hat shoes"),
        new(Architecture.PullerHat, "Shoes in the hat, puller", "straight push", "drum-in-hat shoes, puller"),
        new(Architecture.MotorHat, "Shoes in the hat, motor", "straight push", "drum-in-hat shoes, motor"),
        new(Architecture.FixedHat, "Fixed caliper, shoes in the hat", "opposite pistons together", "fixed caliper, drum-in-hat"),
        new(Architecture.SpotCaliper, "Second small caliper", "straight push; the small one is its own job", "spot caliper"),
        new(Architecture.RearHex, "Hex at the caliper's back", "turn the hex while pushing", "rear hex, wind in"),
        new(Architecture.Plain, "Plain sliding caliper", "straight push", "plain caliper, push straight"),
        new(Architecture.ElectricOnly, "Electric only, no hydraulics", "the maker's procedure", "electric only"),
    ];

    /// <summary>The card of an architecture.</summary>
    public static ArchitectureCard Card(this Architecture architecture) => All[(int)architecture];

    /// <summary>The architecture's name for people.</summary>
    public static string Words(this Architecture architecture) => architecture.Card().Name;
}
