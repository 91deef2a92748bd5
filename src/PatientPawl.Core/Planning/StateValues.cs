using System.ComponentModel;

namespace PatientPawl.Core.Planning;

/// <summary>Where the car stands.</summary>
public enum CarPosition
{
    /// <summary>On its wheels.</summary>
    [Description("on the ground")]
    Ground,
    /// <summary>On stands or a locked lift.</summary>
    [Description("on stands")]
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
    [Description("in P")]
    Park,
    /// <summary>In neutral.</summary>
    [Description("in neutral")]
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
    [Description("on its own")]
    Alone,
    /// <summary>Held up by a charger.</summary>
    [Description("held up by a charger")]
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
    [Description("in service")]
    Service,
    /// <summary>Not known; must be verified.</summary>
    Unknown,
    /// <summary>In its service position when it was last seen; somebody or a flat battery may have changed it.</summary>
    [Description("in service, in doubt")]
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
    [Description("not known")]
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
    [Description("not known")]
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
    [Description("not seen on its stop")]
    NotSeen,
    /// <summary>Resting on its stop.</summary>
    [Description("on its stop")]
    OnStop,
}

/// <summary>Electric actuator.</summary>
public enum Actuator
{
    /// <summary>No actuator.</summary>
    None,
    /// <summary>On and plugged.</summary>
    [Description("plugged")]
    Plugged,
    /// <summary>On, unplugged.</summary>
    Unplugged,
    /// <summary>Off the caliper.</summary>
    [Description("off the caliper")]
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
    [Description("not known")]
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
    [Description("off on its hook")]
    Hung,
    /// <summary>The old one is away; its hose is shut.</summary>
    Away,
    /// <summary>Swung up on one pin, and wired.</summary>
    [Description("swung up")]
    Swung,
}

/// <summary>Pads.</summary>
public enum PadState
{
    /// <summary>The old ones are in.</summary>
    [Description("in")]
    Old,
    /// <summary>Out.</summary>
    [Description("out")]
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
    [Description("on")]
    Old,
    /// <summary>Off.</summary>
    Off,
    /// <summary>A new one is on.</summary>
    [Description("a new one")]
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
    [Description("too little")]
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
    [Description("new and not set")]
    NewLoose,
    /// <summary>New shoes set.</summary>
    [Description("new and set")]
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
    /// <summary>Left as it is by the lead's word, which names it.</summary>
    [Description("left open by the lead")]
    LeftOpen,
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
