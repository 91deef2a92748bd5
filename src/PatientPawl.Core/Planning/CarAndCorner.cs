namespace PatientPawl.Core.Planning;

/// <summary>Where the car stands.</summary>
public enum CarPosition
{
    /// <summary>On its wheels.</summary>
    Ground,
    /// <summary>On stands or a locked lift.</summary>
    Stands,
}

/// <summary>Chocks at the other axle, both ways.</summary>
public enum Chocks
{
    /// <summary>Not chocked.</summary>
    Out,
    /// <summary>Chocked both ways.</summary>
    In,
}

/// <summary>Gear.</summary>
public enum Gear
{
    /// <summary>In P, or in gear.</summary>
    Park,
    /// <summary>In neutral.</summary>
    Neutral,
}

/// <summary>Ignition.</summary>
public enum Ignition
{
    /// <summary>Off.</summary>
    Off,
    /// <summary>On.</summary>
    On,
}

/// <summary>Whether the electronics sleep.</summary>
public enum CarSleep
{
    /// <summary>Awake.</summary>
    Awake,
    /// <summary>Asleep.</summary>
    Asleep,
}

/// <summary>Battery.</summary>
public enum Battery
{
    /// <summary>On its own.</summary>
    Alone,
    /// <summary>Held up by a charger.</summary>
    Supported,
}

/// <summary>Automatic application of the electric parking brake.</summary>
public enum AutoApply
{
    /// <summary>The car has none.</summary>
    None,
    /// <summary>Active.</summary>
    Active,
    /// <summary>Inhibited.</summary>
    Inhibited,
}

/// <summary>Key.</summary>
public enum Key
{
    /// <summary>Near the car.</summary>
    Near,
    /// <summary>Out of range.</summary>
    Away,
}

/// <summary>Parking brake.</summary>
public enum ParkingBrake
{
    /// <summary>Applied.</summary>
    Applied,
    /// <summary>Released.</summary>
    Released,
    /// <summary>Released, and a wheel was turned to prove it.</summary>
    ProvedReleased,
    /// <summary>In its service position.</summary>
    Service,
    /// <summary>Not known; must be verified.</summary>
    Unknown,
    /// <summary>In its service position when it was last seen; somebody or a flat battery may have changed it.</summary>
    ServiceInDoubt,
}

/// <summary>Whether the parking mechanism is closed.</summary>
public enum Closing
{
    /// <summary>As it came: nobody opened it.</summary>
    AsItCame,
    /// <summary>Opened, and not closed yet.</summary>
    Open,
    /// <summary>Closed.</summary>
    Closed,
    /// <summary>Closed and cycled.</summary>
    Cycled,
}

/// <summary>Route into the service position.</summary>
public enum Route
{
    /// <summary>Not chosen yet.</summary>
    NotChosen,
    /// <summary>Chosen.</summary>
    Chosen,
}

/// <summary>The hydraulics of a corner, by badness: from open to closed there is no way but bleeding.</summary>
public enum HydraulicsState
{
    /// <summary>Never opened, or bled since.</summary>
    Closed,
    /// <summary>Not known; must be looked at.</summary>
    Unknown,
    /// <summary>Opened.</summary>
    Open,
}

/// <summary>Whether the brakes can pressurise themselves.</summary>
public enum SelfPressure
{
    /// <summary>Ruled out at the look-over.</summary>
    RuledOut,
    /// <summary>Not ruled out.</summary>
    NotRuledOut,
    /// <summary>Disabled by the maker's procedure.</summary>
    Disabled,
}

/// <summary>Brake pedal.</summary>
public enum Pedal
{
    /// <summary>Firm as it came in.</summary>
    Firm,
    /// <summary>Not pumped since a piston went back.</summary>
    NotPumped,
    /// <summary>Pumped and proved firm.</summary>
    Proved,
}

/// <summary>Trouble codes.</summary>
public enum Codes
{
    /// <summary>Not read.</summary>
    Unread,
    /// <summary>Read.</summary>
    Read,
    /// <summary>Read, cleared and read again.</summary>
    Cleared,
    /// <summary>No tool: lamps seen off.</summary>
    LampsSeen,
}

/// <summary>The cable, where one works the brake.</summary>
public enum CableRun
{
    /// <summary>No cable.</summary>
    None,
    /// <summary>Tight, as set.</summary>
    Tight,
    /// <summary>Slack.</summary>
    Slack,
    /// <summary>Taken up again.</summary>
    TakenUp,
    /// <summary>Not known; must be looked at.</summary>
    Unknown,
}

/// <summary>Acceptance of torques that could not be verified.</summary>
public enum Acceptance
{
    /// <summary>Every torque was verified.</summary>
    NotNeeded,
    /// <summary>Waits for the lead.</summary>
    Waiting,
    /// <summary>Accepted by the lead by name and reason.</summary>
    Accepted,
}

/// <summary>Whether something has been done.</summary>
public enum Done
{
    /// <summary>Not done.</summary>
    No,
    /// <summary>Done.</summary>
    Yes,
}

/// <summary>Wheel.</summary>
public enum Wheel
{
    /// <summary>On.</summary>
    On,
    /// <summary>Off.</summary>
    Off,
}

/// <summary>Bolts, screws or nuts of one place.</summary>
public enum Bolts
{
    /// <summary>Tight, as it came in.</summary>
    Tight,
    /// <summary>Cracked loose.</summary>
    Cracked,
    /// <summary>Out.</summary>
    Out,
    /// <summary>In by hand, snug.</summary>
    Snug,
    /// <summary>Torqued and signed.</summary>
    Torqued,
    /// <summary>There are none.</summary>
    None,
}

/// <summary>Caliper lever.</summary>
public enum Lever
{
    /// <summary>No lever.</summary>
    None,
    /// <summary>Not seen on its stop.</summary>
    NotSeen,
    /// <summary>Resting on its stop.</summary>
    OnStop,
}

/// <summary>Electric actuator.</summary>
public enum Actuator
{
    /// <summary>No actuator.</summary>
    None,
    /// <summary>On and plugged.</summary>
    Plugged,
    /// <summary>On, unplugged.</summary>
    Unplugged,
    /// <summary>Off the caliper.</summary>
    Off,
}

/// <summary>Spindle inside the piston.</summary>
public enum Spindle
{
    /// <summary>No spindle.</summary>
    None,
    /// <summary>Out, where it clamps.</summary>
    Out,
    /// <summary>Back.</summary>
    Back,
    /// <summary>Not known; must be verified.</summary>
    Unknown,
}

/// <summary>Retraction method.</summary>
public enum MethodState
{
    /// <summary>Known.</summary>
    Known,
    /// <summary>Undecided until a gentle push.</summary>
    Undecided,
}

/// <summary>Caliper.</summary>
public enum Caliper
{
    /// <summary>On.</summary>
    On,
    /// <summary>Off, hung on a hook.</summary>
    Hung,
    /// <summary>The old one is away; its hose is shut.</summary>
    Away,
    /// <summary>Swung up on one pin, and wired.</summary>
    Swung,
}

/// <summary>Pads.</summary>
public enum PadState
{
    /// <summary>The old ones are in.</summary>
    Old,
    /// <summary>Out.</summary>
    None,
    /// <summary>New ones in.</summary>
    New,
}

/// <summary>Caliper bracket.</summary>
public enum Bracket
{
    /// <summary>On.</summary>
    On,
    /// <summary>Off.</summary>
    Off,
}

/// <summary>Rotor.</summary>
public enum Rotor
{
    /// <summary>The old one is on.</summary>
    Old,
    /// <summary>Off.</summary>
    Off,
    /// <summary>A new one is on.</summary>
    New,
}

/// <summary>Piston.</summary>
public enum Piston
{
    /// <summary>Out.</summary>
    Out,
    /// <summary>Home, or as far as the new parts need.</summary>
    Home,
    /// <summary>Stuck: the caliper is condemned.</summary>
    Stuck,
    /// <summary>Not known how it stands; must be looked at.</summary>
    NotSure,
    /// <summary>Levered back behind the old pad; whether it is home is judged once the caliper is off.</summary>
    Levered,
}

/// <summary>Room in the reservoir for this piston's fluid.</summary>
public enum Room
{
    /// <summary>Not judged.</summary>
    NotJudged,
    /// <summary>Enough.</summary>
    Enough,
    /// <summary>Not enough.</summary>
    Short,
}

/// <summary>New single-use bolts.</summary>
public enum NewBolts
{
    /// <summary>None are single-use.</summary>
    NotNeeded,
    /// <summary>Not laid out.</summary>
    Missing,
    /// <summary>Laid out at the corner.</summary>
    LaidOut,
}

/// <summary>Parking shoes in the hat.</summary>
public enum ShoesState
{
    /// <summary>This brake has none.</summary>
    None,
    /// <summary>As it came, or set again.</summary>
    Set,
    /// <summary>Star wheel backed off.</summary>
    BackedOff,
    /// <summary>Off the plate.</summary>
    Off,
    /// <summary>New shoes on, not set yet.</summary>
    NewLoose,
    /// <summary>New shoes set.</summary>
    NewSet,
}

/// <summary>Which caliper is there.</summary>
public enum CaliperPart
{
    /// <summary>The one that came.</summary>
    Old,
    /// <summary>A new one.</summary>
    New,
}

/// <summary>Brake hose at the caliper.</summary>
public enum HoseState
{
    /// <summary>On, as it came.</summary>
    On,
    /// <summary>Off, shut with a plug.</summary>
    Off,
    /// <summary>On with new washers, by hand.</summary>
    Snug,
    /// <summary>Torqued and signed.</summary>
    Torqued,
}

/// <summary>A small part that comes off with the work and is easily forgotten.</summary>
public enum Fitted
{
    /// <summary>The vehicle has none.</summary>
    None,
    /// <summary>In its place.</summary>
    On,
    /// <summary>Off.</summary>
    Off,
}

/// <summary>Something a finding asked for.</summary>
public enum Asked
{
    /// <summary>Nothing was asked.</summary>
    Nothing,
    /// <summary>Due.</summary>
    Due,
    /// <summary>Done.</summary>
    Done,
}

/// <summary>Second caliper that does the parking.</summary>
public enum SpotCaliper
{
    /// <summary>This brake has none.</summary>
    None,
    /// <summary>On.</summary>
    On,
    /// <summary>Off, hung on a hook.</summary>
    Hung,
}

/// <summary>Reservoir cap.</summary>
public enum CapState
{
    /// <summary>On.</summary>
    On,
    /// <summary>Off, with a rag round the neck.</summary>
    Off,
}

/// <summary>Whether a verdict on a part that stays is still in doubt.</summary>
public enum Doubt
{
    /// <summary>None, or settled.</summary>
    None,
    /// <summary>Too close to call: not passed.</summary>
    Open,
}

/// <summary>What is left of something done once it is doubted.</summary>
internal static class Doubts
{
    /// <summary>It is done again.</summary>
    public static Done Again(Done _) => Done.No;
}

/// <summary>What the plan keeps track of on the car.</summary>
public static class Car
{
    /// <summary>The car.</summary>
    public static readonly StateVariable<CarPosition> Position = new("car", false);
    /// <summary>The chocks.</summary>
    public static readonly StateVariable<Chocks> Chocks = new("chocks", false);
    /// <summary>The gear.</summary>
    public static readonly StateVariable<Gear> Gear = new("gear", false);
    /// <summary>The ignition.</summary>
    public static readonly StateVariable<Ignition> Ignition = new("ignition", false);
    /// <summary>The car's electronics.</summary>
    public static readonly StateVariable<CarSleep> Sleep = new("car's electronics", false);
    /// <summary>The battery.</summary>
    public static readonly StateVariable<Battery> Battery = new("battery", false);
    /// <summary>The auto-apply.</summary>
    public static readonly StateVariable<AutoApply> AutoApply = new("auto-apply", false);
    /// <summary>The key.</summary>
    public static readonly StateVariable<Key> Key = new("key", false);
    /// <summary>The parking brake.</summary>
    public static readonly StateVariable<ParkingBrake> Brake = new("parking brake", false, b => b is ParkingBrake.Service or ParkingBrake.ServiceInDoubt ? ParkingBrake.ServiceInDoubt : ParkingBrake.Unknown);
    /// <summary>The closing of the brake.</summary>
    public static readonly StateVariable<Closing> Closing = new("closing of the brake", false, c => c == Planning.Closing.AsItCame ? c : Planning.Closing.Open);
    /// <summary>The parking brake proof.</summary>
    public static readonly StateVariable<Done> BrakeProved = new("parking brake proof", false, Doubts.Again);
    /// <summary>The tag on the switch.</summary>
    public static readonly StateVariable<Done> Tag = new("tag on the switch", false);
    /// <summary>The service route.</summary>
    public static readonly StateVariable<Route> Route = new("service route", false);
    /// <summary>Whether the brakes can pressurise themselves.</summary>
    public static readonly StateVariable<SelfPressure> SelfPressure = new("self-pressurising brakes", false);
    /// <summary>The look at the reservoir.</summary>
    public static readonly StateVariable<Done> Reservoir = new("look at the reservoir", false, Doubts.Again);
    /// <summary>The pedal.</summary>
    public static readonly StateVariable<Pedal> Pedal = new("pedal", false, _ => Planning.Pedal.NotPumped);
    /// <summary>The trouble codes.</summary>
    public static readonly StateVariable<Codes> Codes = new("trouble codes", false, _ => Planning.Codes.Unread);
    /// <summary>The comparing new with old.</summary>
    public static readonly StateVariable<Done> NewParts = new("comparing new with old", false, Doubts.Again);
    /// <summary>The look over the car.</summary>
    public static readonly StateVariable<Done> LookedOver = new("look over the car", false);
    /// <summary>The fluid level check.</summary>
    public static readonly StateVariable<Done> Level = new("fluid level check", false, Doubts.Again);
    /// <summary>The leak check.</summary>
    public static readonly StateVariable<Done> Leaks = new("leak check", false, Doubts.Again);
    /// <summary>The test drive.</summary>
    public static readonly StateVariable<Done> TestDrive = new("test drive", false, Doubts.Again);
    /// <summary>The hand-over.</summary>
    public static readonly StateVariable<Done> HandedOver = new("hand-over", false);
    /// <summary>The cable.</summary>
    public static readonly StateVariable<CableRun> Cable = new("cable", false, c => c == CableRun.None ? c : CableRun.Unknown);
    /// <summary>The unverified torques.</summary>
    public static readonly StateVariable<Acceptance> Acceptance = new("unverified torques", false);
    /// <summary>The reservoir's cap.</summary>
    public static readonly StateVariable<CapState> Cap = new("reservoir cap", false);
    /// <summary>The bed-in series.</summary>
    public static readonly StateVariable<Done> BedIn = new("bed-in", false, Doubts.Again);
    /// <summary>The lead's look at the wheels.</summary>
    public static readonly StateVariable<Done> WheelsSigned = new("lead's look at the wheels", false, Doubts.Again);
    /// <summary>A part that was wrong.</summary>
    public static readonly StateVariable<Asked> RightPart = new("the right part", false);
    /// <summary>Pipes and hoses that were not sound when it came in.</summary>
    public static readonly StateVariable<Asked> Pipes = new("pipes and hoses", false);
    /// <summary>What the car showed when it was tried: a lamp, a pull, a noise, a pedal that sinks.</summary>
    public static readonly StateVariable<Asked> Trouble = new("what the car showed", false);
}

/// <summary>What the plan keeps track of at each corner.</summary>
public static class Corner
{
    /// <summary>The identification.</summary>
    public static readonly StateVariable<Done> Identified = new("identification", true);
    /// <summary>The wheel.</summary>
    public static readonly StateVariable<Wheel> Wheel = new("wheel", true);
    /// <summary>The wheel nuts.</summary>
    public static readonly StateVariable<Bolts> Nuts = new("wheel nuts", true);
    /// <summary>The caliper lever.</summary>
    public static readonly StateVariable<Lever> Lever = new("caliper lever", true, l => l == Planning.Lever.None ? l : Planning.Lever.NotSeen);
    /// <summary>The actuator.</summary>
    public static readonly StateVariable<Actuator> Actuator = new("actuator", true);
    /// <summary>The actuator screws.</summary>
    public static readonly StateVariable<Bolts> ActuatorScrews = new("actuator screws", true);
    /// <summary>The spindle.</summary>
    public static readonly StateVariable<Spindle> Spindle = new("spindle", true, s => s == Planning.Spindle.Back ? Planning.Spindle.Unknown : s);
    /// <summary>The retraction method.</summary>
    public static readonly StateVariable<MethodState> Method = new("retraction method", true);
    /// <summary>The rotor screws.</summary>
    public static readonly StateVariable<Bolts> RotorScrews = new("rotor screws", true);
    /// <summary>The caliper.</summary>
    public static readonly StateVariable<Caliper> Caliper = new("caliper", true);
    /// <summary>The slide-pin bolts.</summary>
    public static readonly StateVariable<Bolts> SlidePins = new("slide-pin bolts", true);
    /// <summary>The pads.</summary>
    public static readonly StateVariable<PadState> Pads = new("pads", true);
    /// <summary>The bracket.</summary>
    public static readonly StateVariable<Bracket> Bracket = new("bracket", true);
    /// <summary>The bracket bolts.</summary>
    public static readonly StateVariable<Bolts> BracketBolts = new("bracket bolts", true);
    /// <summary>The rotor.</summary>
    public static readonly StateVariable<Rotor> Rotor = new("rotor", true);
    /// <summary>The degreasing the new rotor.</summary>
    public static readonly StateVariable<Done> RotorClean = new("degreasing the new rotor", true, Doubts.Again);
    /// <summary>The cleaning the hub face.</summary>
    public static readonly StateVariable<Done> HubClean = new("cleaning the hub face", true, Doubts.Again);
    /// <summary>The cleaning the lands.</summary>
    public static readonly StateVariable<Done> LandsClean = new("cleaning the lands", true, Doubts.Again);
    /// <summary>The greasing the pins.</summary>
    public static readonly StateVariable<Done> PinsGreased = new("greasing the pins", true, Doubts.Again);
    /// <summary>The piston.</summary>
    public static readonly StateVariable<Piston> Piston = new("piston", true, p => p == Planning.Piston.Home ? Planning.Piston.NotSure : p);
    /// <summary>The room in the reservoir.</summary>
    public static readonly StateVariable<Room> Room = new("room in the reservoir", true, _ => Planning.Room.NotJudged);
    /// <summary>The measuring and judging.</summary>
    public static readonly StateVariable<Done> Judged = new("measuring and judging", true, Doubts.Again);
    /// <summary>A verdict on a part that stays.</summary>
    public static readonly StateVariable<Doubt> Doubt = new("doubt about a verdict", true);
    /// <summary>The parking shoes.</summary>
    public static readonly StateVariable<ShoesState> Shoes = new("parking shoes", true);
    /// <summary>The measuring of drum and shoes.</summary>
    public static readonly StateVariable<Done> ShoesJudged = new("measuring drum and shoes", true, Doubts.Again);
    /// <summary>The cleaning of the backing plate.</summary>
    public static readonly StateVariable<Done> PlateClean = new("cleaning the backing plate", true, Doubts.Again);
    /// <summary>New slide-pin bolts, where they are single-use.</summary>
    public static readonly StateVariable<NewBolts> NewPinBolts = new("new slide-pin bolts", true);
    /// <summary>New bracket or mounting bolts, where they are single-use.</summary>
    public static readonly StateVariable<NewBolts> NewBracketBolts = new("new bracket bolts", true);
    /// <summary>The hydraulics.</summary>
    public static readonly StateVariable<HydraulicsState> Hydraulics = new("hydraulics", true, h => h == HydraulicsState.Closed ? HydraulicsState.Unknown : h);
    /// <summary>The bleed screw.</summary>
    public static readonly StateVariable<Bolts> BleedScrew = new("bleed screw", true);
    /// <summary>A bleeding in this job.</summary>
    public static readonly StateVariable<Done> Bled = new("bleeding", true);
    /// <summary>Two wheel nuts with washers that hold the rotor while the wheel is off.</summary>
    public static readonly StateVariable<Fitted> HoldingNuts = new("two nuts that hold the rotor", true);
    /// <summary>The look at this side while it is still assembled.</summary>
    public static readonly StateVariable<Done> Looked = new("look at this side", true, Doubts.Again);
    /// <summary>The turning free by hand.</summary>
    public static readonly StateVariable<Done> TurnsFree = new("turning free by hand", true, Doubts.Again);
    /// <summary>Whether the caliper stays.</summary>
    public static readonly StateVariable<CaliperPart> CaliperPart = new("caliper part", true);
    /// <summary>The hose.</summary>
    public static readonly StateVariable<HoseState> Hose = new("brake hose", true);
    /// <summary>The spot caliper.</summary>
    public static readonly StateVariable<SpotCaliper> Spot = new("spot caliper", true);
    /// <summary>The spot caliper's bolts.</summary>
    public static readonly StateVariable<Bolts> SpotBolts = new("spot caliper bolts", true);
    /// <summary>The wear sensor.</summary>
    public static readonly StateVariable<Fitted> Sensor = new("wear sensor", true);
    /// <summary>The anti-rattle spring.</summary>
    public static readonly StateVariable<Fitted> RattleSpring = new("anti-rattle spring", true);
    /// <summary>The bracket that carries the hose.</summary>
    public static readonly StateVariable<Fitted> HoseBracket = new("hose bracket", true);
    /// <summary>The caps over the slide-pin bolts.</summary>
    public static readonly StateVariable<Fitted> PinCaps = new("pin caps", true);
    /// <summary>The plug of the star wheel's hole.</summary>
    public static readonly StateVariable<Fitted> HatPlug = new("hat plug", true);
    /// <summary>The cable's end at the caliper.</summary>
    public static readonly StateVariable<Fitted> CableEnd = new("cable end", true);
    /// <summary>The lead's look at bracket and caliper.</summary>
    public static readonly StateVariable<Done> LeadSigned = new("lead's look at the corner", true, Doubts.Again);
    /// <summary>New hardware for frozen pads.</summary>
    public static readonly StateVariable<Asked> Hardware = new("new hardware", true);
    /// <summary>New slide pins.</summary>
    public static readonly StateVariable<Asked> PinKit = new("new slide pins", true);
    /// <summary>A broken rotor screw.</summary>
    public static readonly StateVariable<Asked> BrokenScrew = new("broken rotor screw", true);
    /// <summary>A rotor stuck on its hub.</summary>
    public static readonly StateVariable<Asked> StuckRotor = new("stuck rotor", true);
    /// <summary>A wheel stuck on its hub.</summary>
    public static readonly StateVariable<Asked> StuckWheel = new("stuck wheel", true);
    /// <summary>A ridge that the shoes catch on.</summary>
    public static readonly StateVariable<Asked> Ridge = new("ridge", true);
    /// <summary>A trial of the piston: whether it moves at all.</summary>
    public static readonly StateVariable<Asked> Trial = new("trial of the piston", true);
    /// <summary>New parts that were fitted and are, or may be, the wrong ones.</summary>
    public static readonly StateVariable<Asked> WrongFitted = new("wrong parts fitted", true);
    /// <summary>A hose that is not sound.</summary>
    public static readonly StateVariable<Asked> HoseMend = new("hose to be renewed", true);
    /// <summary>A bleed screw that broke or does not turn.</summary>
    public static readonly StateVariable<Asked> ScrewMend = new("bleed screw to be renewed", true);
    /// <summary>A parking cable that is frayed or drags.</summary>
    public static readonly StateVariable<Asked> CableMend = new("parking cable to be renewed", true);
    /// <summary>A thread, stud, bearing or plate at the hub that is not fit.</summary>
    public static readonly StateVariable<Asked> HubMend = new("hub and threads to be put right", true);
    /// <summary>A wheel-speed sensor that is not fit.</summary>
    public static readonly StateVariable<Asked> SpeedSensorMend = new("speed sensor to be put right", true);

    // What was found beside the job: under the pedal, and under a car that moves.
    internal static readonly StateVariable<Asked>[] MendedUnderThePedal = [HoseMend, ScrewMend];
    internal static readonly StateVariable<Asked>[] MendedToMove = [HubMend, SpeedSensorMend, CableMend];
}
