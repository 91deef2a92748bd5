using PatientPawl.Core.Identification;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Planning;

/// <summary>What the job renews.</summary>
public enum JobScope
{
    /// <summary>Pads on both sides.</summary>
    Pads,
    /// <summary>Pads and rotors on both sides.</summary>
    PadsAndRotors,
    /// <summary>Parking shoes in the hat, on both sides; pads and rotors stay when they pass.</summary>
    Shoes,
}

/// <summary>How a motor caliper gets into its service position.</summary>
public enum ServiceRoute
{
    /// <summary>With a scan tool's service function.</summary>
    ScanTool,
    /// <summary>Actuators off and spindles turned back by hand.</summary>
    SpindleByHand,
}

/// <summary>What is known of one corner when a plan is made.</summary>
/// <param name="Architecture">The architecture ruled for; null while it is not identified.</param>
/// <param name="MethodUndecided">True while both motor designs stand.</param>
public sealed record CornerSetup(Architecture? Architecture, bool MethodUndecided)
{
    /// <summary>Not identified yet.</summary>
    public static CornerSetup NotIdentified { get; } = new(null, false);
}

/// <summary>What a plan is made for. Immutable.</summary>
/// <param name="Left">The left corner.</param>
/// <param name="Right">The right corner.</param>
/// <param name="Scope">What is renewed.</param>
/// <param name="Route">The service route; null while none is chosen or none is needed.</param>
/// <param name="Rules">The house rules.</param>
/// <param name="RotorHasScrews">True when screws hold the rotor.</param>
/// <param name="RotorComesOffWithBracketOn">True when the bracket can stay.</param>
/// <param name="ServiceOnGround">True when the service routine must run on its wheels.</param>
/// <param name="SingleUse">Fasteners that are renewed every time.</param>
/// <param name="SimulatedPedal">True when the pedal feel is simulated: the maker's routine proves the brakes.</param>
public sealed record PlanSetup(
    CornerSetup Left, CornerSetup Right, JobScope Scope, ServiceRoute? Route, HouseRules Rules, bool RotorHasScrews, bool RotorComesOffWithBracketOn,
    bool ServiceOnGround, IReadOnlyList<FastenerRole> SingleUse, bool SimulatedPedal)
{
    /// <summary>True when a rotor that was to stay did not pass: the axle gets new ones.</summary>
    public bool RotorFound { get; init; }

    /// <summary>True when shoes that were to stay did not pass.</summary>
    public bool ShoesFound { get; init; }

    /// <summary>True when pads that were to stay did not pass.</summary>
    public bool PadsFound { get; init; }

    /// <summary>True when a rotor that stays must come off, so that its hub face is cleaned or it is turned on its studs.</summary>
    public bool HubFound { get; init; }

    /// <summary>Both corners alike, default house rules, nothing unusual on the sheet.</summary>
    public static PlanSetup For(Architecture? architecture, JobScope scope, ServiceRoute? route = null) =>
        new(new(architecture, false), new(architecture, false), scope, route, HouseRules.Default, true, false, false, [], false);

    /// <summary>What a spec sheet says about the order of the work.</summary>
    public PlanSetup WithSheet(SpecSheet? sheet) => sheet is null ? this : this with
    {
        RotorHasScrews = sheet.Rotor.HasScrews,
        RotorComesOffWithBracketOn = sheet.Rotor.ComesOffWithBracketOn,
        ServiceOnGround = sheet.Electric?.ServiceOnGround == true,
        SingleUse = [.. sheet.Torques.Where(t => t.SingleUse).Select(t => t.Role)],
    };

    /// <summary>The corner's setup.</summary>
    public CornerSetup At(Side side) => side == Side.Left ? Left : Right;

    /// <summary>True when both corners have been ruled on.</summary>
    public bool Identified => Left.Architecture is not null && Right.Architecture is not null;

    /// <summary>True when a cable works a lever on the caliper.</summary>
    public bool IsCable => Identified && Both(a => a is Architecture.CableScrew or Architecture.LeverPush);

    /// <summary>True when motors sit on the calipers.</summary>
    public bool IsMotor => Identified && Both(a => a is Architecture.MotorPush or Architecture.MotorTurn);

    /// <summary>True when the parking brake is shoes in the hat.</summary>
    public bool IsHat => Identified && Both(a => a is Architecture.HatShoes);

    /// <summary>True when the parking brake acts through the caliper.</summary>
    public bool IsCaliperType => IsCable || IsMotor;

    /// <summary>True when rotors are renewed.</summary>
    public bool Rotors => Scope == JobScope.PadsAndRotors || RotorFound;

    /// <summary>True when pads are renewed. New rotors get new pads.</summary>
    public bool PadsNew => Scope != JobScope.Shoes || Rotors || PadsFound;

    /// <summary>True when parking shoes are renewed.</summary>
    public bool ShoesNew => IsHat && (Scope == JobScope.Shoes || ShoesFound);

    /// <summary>True when the rotor comes off, to be renewed or to go back.</summary>
    public bool RotorOff => Rotors || ShoesNew || HubFound;

    /// <summary>True when the hat comes off its shoes.</summary>
    public bool HatOpen => IsHat && RotorOff;

    /// <summary>True when the bracket comes off.</summary>
    public bool BracketOff => RotorOff && !RotorComesOffWithBracketOn;

    /// <summary>True when rotor screws have to be cracked.</summary>
    public bool Screws => RotorOff && RotorHasScrews;

    /// <summary>True when the holding rule lets the parking brake hold the hubs: it acts on this axle, the rotor has screws and comes off by plan and not by a late finding, and the service routine does not need the wheels on the ground.</summary>
    public bool BrakeHoldsHub => Screws && Scope != JobScope.Pads && (IsCaliperType || IsHat) && Rules.Holding == HoldingRule.HoldUntilCracked && !ServiceOnGround;

    /// <summary>True when the corner's single-use bolts of these roles come out in this job.</summary>
    public bool NeedsNewBolts => SingleUse.Contains(FastenerRole.SlidePin) || (BracketOff && SingleUse.Contains(FastenerRole.Bracket));

    /// <summary>True when the route is by scan tool.</summary>
    public bool ByTool => IsMotor && Route == ServiceRoute.ScanTool;

    /// <summary>True when the spindles go back by hand.</summary>
    public bool ByHand => IsMotor && Route == ServiceRoute.SpindleByHand;

    /// <summary>Why this cannot be sequenced, or null when it can.</summary>
    public string? NotCovered => !Identified ? null
        : !IsCaliperType && !IsHat ? "This version sequences cable calipers, motor calipers and shoes in the hat, the same on both sides. The ruling still stands; the order of the work is the maker's."
        : Scope == JobScope.Shoes && !IsHat ? "There are no shoes in this brake: the parking brake acts through the caliper. Open the job for pads, or for pads and rotors."
        : null;

    /// <summary>The state of the car as it comes in: on the ground, in P, brake applied, pedal firm, hydraulics closed, nothing looked at, spindles out.</summary>
    public CarState Start()
    {
        var s = CarState.Blank
            .With(Car.AutoApply, IsMotor ? AutoApply.Active : AutoApply.None)
            .With(Car.Closing, IsCaliperType || HatOpen ? Closing.Open : Closing.NotNeeded)
            .With(Car.Route, !IsMotor ? Planning.Route.NotNeeded : Route is null ? Planning.Route.NotChosen : Planning.Route.Chosen)
            .With(Car.Codes, IsMotor ? Codes.Unread : Codes.NotAsked)
            .With(Car.Cable, IsCable || HatOpen ? CableRun.Tight : CableRun.None);
        foreach (var side in Core.Sides.Both)
        {
            s = s.With(Corner.Identified, side, At(side).Architecture is null ? Done.No : Done.Yes)
                .With(Corner.Lever, side, IsCable ? Lever.NotSeen : Lever.None)
                .With(Corner.Actuator, side, IsMotor ? Actuator.Plugged : Actuator.None)
                .With(Corner.Spindle, side, IsMotor ? Spindle.Out : Spindle.None)
                .With(Corner.ActuatorScrews, side, IsMotor ? Bolts.Tight : Bolts.None)
                .With(Corner.Method, side, At(side).MethodUndecided ? MethodState.Undecided : MethodState.Known)
                .With(Corner.Shoes, side, HatOpen ? ShoesState.Set : ShoesState.None)
                .With(Corner.RotorScrews, side, Screws ? Bolts.Tight : Bolts.None)
                .With(Corner.NewBolts, side, NeedsNewBolts ? NewBolts.Missing : NewBolts.NotNeeded);
        }
        return s;
    }

    /// <summary>
    /// Carries a state over when more becomes known (a corner identified, a route chosen): whatever is still as an
    /// <paramref name="earlier"/> setup assumed takes this setup's value; what the work has changed stays.
    /// </summary>
    public CarState Onto(CarState state, PlanSetup earlier)
    {
        ArgumentNullException.ThrowIfNull(state);
        ArgumentNullException.ThrowIfNull(earlier);
        var (before, after) = (earlier.Start(), Start());
        for (var slot = 0; slot < after.Raw.Length; slot++)
        {
            if (before[slot] != after[slot] && state[slot] == before[slot]) state = state.Set(slot, after[slot]);
        }

        return state;
    }

    private bool Both(Func<Architecture, bool> test) => test(Left.Architecture!.Value) && test(Right.Architecture!.Value);
}
