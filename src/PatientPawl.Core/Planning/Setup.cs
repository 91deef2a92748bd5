using PatientPawl.Core.Identification;
using PatientPawl.Core.Torque;
using PatientPawl.Core.Vehicles;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Planning;

/// <summary>What the job renews. Calipers are named beside it, side by side: any of these can have new calipers with it.</summary>
public enum JobScope
{
    /// <summary>Pads on both sides.</summary>
    Pads,
    /// <summary>Pads and rotors on both sides.</summary>
    PadsAndRotors,
    /// <summary>Parking shoes in the hat, on both sides; pads and rotors stay when they pass.</summary>
    Shoes,
    /// <summary>Pads, and parking shoes in the hat.</summary>
    PadsAndShoes,
    /// <summary>Pads, rotors, and parking shoes in the hat.</summary>
    PadsRotorsAndShoes,
    /// <summary>Nothing: the brake is inspected. With a new caliper, only the caliper.</summary>
    Inspect,
}

/// <summary>How an electric parking brake gets into its service position.</summary>
public enum ServiceRoute
{
    /// <summary>With a scan tool's service function.</summary>
    ScanTool,
    /// <summary>Actuators off and spindles turned back by hand.</summary>
    SpindleByHand,
    /// <summary>By the car's own switch and pedal sequence, or its menu.</summary>
    InCar,
    /// <summary>By the manual release of the box that pulls the cables.</summary>
    PullerRelease,
}

/// <summary>A small part that a vehicle may have and that is easily forgotten.</summary>
public enum Fitting
{
    /// <summary>A wear sensor with its plug.</summary>
    WearSensor,
    /// <summary>An anti-rattle spring over the caliper.</summary>
    RattleSpring,
    /// <summary>A bracket that carries the brake hose.</summary>
    HoseBracket,
    /// <summary>Dust caps over the slide-pin bolts.</summary>
    PinCaps,
    /// <summary>A plug in the star wheel's hole.</summary>
    HatPlug,
}

/// <summary>What was found at a corner beside verdicts on its parts.</summary>
[Flags]
public enum CornerFinding
{
    /// <summary>Nothing.</summary>
    None = 0,
    /// <summary>Pads frozen in the bracket.</summary>
    FrozenPads = 1 << 0,
    /// <summary>A slide pin seized.</summary>
    SeizedPin = 1 << 1,
    /// <summary>A rotor screw broke.</summary>
    BrokenScrew = 1 << 2,
    /// <summary>The rotor is stuck on its hub.</summary>
    StuckRotor = 1 << 3,
    /// <summary>The wheel is stuck on its hub.</summary>
    StuckWheel = 1 << 4,
    /// <summary>The hat catches on the shoes: a ridge.</summary>
    Ridge = 1 << 5,
}

/// <summary>What is known of one corner when a plan is made.</summary>
/// <param name="Architecture">The architecture ruled for; null while it is not identified.</param>
/// <param name="MethodUndecided">True while both motor designs stand.</param>
public sealed record CornerSetup(Architecture? Architecture, bool MethodUndecided)
{
    /// <summary>Not identified yet.</summary>
    public static CornerSetup NotIdentified { get; } = new(null, false);

    /// <summary>True when the caliper is renewed, by the job's scope or by a finding.</summary>
    public bool CaliperNew { get; init; }

    /// <summary>What was found here.</summary>
    public CornerFinding Found { get; init; }
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

    /// <summary>True when a new part lay beside the old and was wrong.</summary>
    public bool WrongPart { get; init; }

    /// <summary>Small parts this vehicle has.</summary>
    public IReadOnlyList<Fitting> Fittings { get; init; } = [];

    /// <summary>True when the sheet says that the parking brake is electric; settles what a spot caliper is worked by.</summary>
    public bool SheetElectric { get; init; }

    /// <summary>Interlocks broken out of order, whose remedies stand in the plan.</summary>
    public IReadOnlyList<int> Broken { get; init; } = [];

    /// <summary>Both corners alike, default house rules, nothing unusual on the sheet.</summary>
    public static PlanSetup For(Architecture? architecture, JobScope scope, ServiceRoute? route = null) =>
        new(new(architecture, false), new(architecture, false), scope, route, HouseRules.Default, true, false, false, [], false);

    /// <summary>What a spec sheet says about the order of the work.</summary>
    public PlanSetup WithSheet(SpecSheet? sheet) => sheet is null ? this : this with
    {
        RotorHasScrews = sheet.Rotor.HasScrews,
        RotorComesOffWithBracketOn = sheet.Rotor.ComesOffWithBracketOn,
        ServiceOnGround = sheet.Electric?.ServiceOnGround == true,
        SingleUse = [.. sheet.Torques.Where(t => t.RenewedEveryTime).Select(t => t.Role)],
        Fittings = sheet.Fittings ?? [],
        SheetElectric = sheet.Electric is not null,
    };

    /// <summary>The corner's setup.</summary>
    public CornerSetup At(Side side) => side == Side.Left ? Left : Right;

    /// <summary>The setup with one corner changed.</summary>
    public PlanSetup With(Side side, Func<CornerSetup, CornerSetup> change)
    {
        ArgumentNullException.ThrowIfNull(change);
        return side == Side.Left ? this with { Left = change(Left) } : this with { Right = change(Right) };
    }

    /// <summary>True when both corners have been ruled on.</summary>
    public bool Identified => Left.Architecture is not null && Right.Architecture is not null;

    /// <summary>True when a cable from a hand lever or foot pedal works a lever on the caliper.</summary>
    public bool IsCable => Both(a => a is Architecture.CableScrew or Architecture.LeverPush or Architecture.RearHex);

    /// <summary>True when an electric box pulls the cables of levers on the calipers.</summary>
    public bool IsPuller => Both(a => a is Architecture.PullerScrew);

    /// <summary>True when the calipers have a cable lever, whoever pulls it.</summary>
    public bool HasLever => IsCable || IsPuller;

    /// <summary>True when motors sit on the calipers.</summary>
    public bool IsMotor => Both(a => a is Architecture.MotorPush or Architecture.MotorTurn);

    /// <summary>True when the parking brake is shoes in the hat.</summary>
    public bool IsHat => Both(a => a is Architecture.HatShoes or Architecture.FixedHat) || Both(a => a is Architecture.PullerHat) || Both(a => a is Architecture.MotorHat);

    /// <summary>True when opposed pistons sit in a fixed caliper: no bracket, no slide pins, pads out with the caliper on.</summary>
    public bool IsFixed => Both(a => a is Architecture.FixedHat);

    /// <summary>True when a second caliper does the parking.</summary>
    public bool IsSpot => Both(a => a is Architecture.SpotCaliper);

    /// <summary>True when there is no parking brake at these corners.</summary>
    public bool IsPlain => Both(a => a is Architecture.Plain);

    /// <summary>True when the parking brake acts through the caliper.</summary>
    public bool IsCaliperType => HasLever || IsMotor;

    /// <summary>True when a switch works the parking brake.</summary>
    public bool IsElectric => IsMotor || IsPuller || Both(a => a is Architecture.PullerHat or Architecture.MotorHat) || (IsSpot && SheetElectric);

    /// <summary>True when cables work shoes in the hat.</summary>
    public bool HatCable => Both(a => a is Architecture.HatShoes or Architecture.FixedHat);

    /// <summary>True when an electric box pulls cables, to calipers or to shoes.</summary>
    public bool PullsCables => IsPuller || Both(a => a is Architecture.PullerHat);

    /// <summary>True when any caliper is renewed.</summary>
    public bool AnyCaliperNew => Left.CaliperNew || Right.CaliperNew;

    /// <summary>True when nothing is opened: the brake is only looked at.</summary>
    public bool InspectOnly => Scope == JobScope.Inspect && !AnyCaliperNew;

    /// <summary>True when rotors are renewed.</summary>
    public bool Rotors => !InspectOnly && (Scope is JobScope.PadsAndRotors or JobScope.PadsRotorsAndShoes || RotorFound);

    /// <summary>True when pads are renewed. New rotors get new pads.</summary>
    public bool PadsNew => !InspectOnly && (Scope is not (JobScope.Shoes or JobScope.Inspect) || Rotors || PadsFound);

    /// <summary>True when the scope asks for parking shoes.</summary>
    private bool WantsShoes => Scope is JobScope.Shoes or JobScope.PadsAndShoes or JobScope.PadsRotorsAndShoes;

    /// <summary>True when parking shoes are renewed.</summary>
    public bool ShoesNew => IsHat && (WantsShoes || (ShoesFound && !InspectOnly));

    /// <summary>True when the rotor comes off, to be renewed or to go back.</summary>
    public bool RotorOff => Rotors || ShoesNew || (HubFound && !InspectOnly);

    /// <summary>True when the hat comes off its shoes.</summary>
    public bool HatOpen => IsHat && RotorOff;

    /// <summary>True when the bracket comes off.</summary>
    public bool BracketOff => RotorOff && !RotorComesOffWithBracketOn && !IsFixed;

    /// <summary>True when the caliper comes off: always on a sliding one, and on a fixed one when the rotor or the caliper does.</summary>
    public bool CaliperComesOff => !InspectOnly && (!IsFixed || RotorOff || AnyCaliperNew);

    /// <summary>True when a spot caliper comes off with the rotor.</summary>
    public bool SpotOff => IsSpot && RotorOff;

    /// <summary>True when rotor screws have to be cracked.</summary>
    public bool Screws => RotorOff && RotorHasScrews;

    /// <summary>True when the holding rule lets the parking brake hold the hubs: it acts on this axle, the rotor has screws and comes off by plan and not by a late finding, and the service routine does not need the wheels on the ground.</summary>
    public bool BrakeHoldsHub => Screws && (WantsShoes || Scope == JobScope.PadsAndRotors) && !IsPlain && Rules.Holding == HoldingRule.HoldUntilCracked && !ServiceOnGround;

    /// <summary>True when the corner's single-use bolts of these roles come out in this job.</summary>
    public bool NeedsNewBolts => !InspectOnly && ((SingleUse.Contains(FastenerRole.SlidePin) && !IsFixed) || ((BracketOff || (IsFixed && CaliperComesOff)) && SingleUse.Contains(FastenerRole.Bracket)));

    /// <summary>True when the house puts thread locker on bracket bolts that are used again.</summary>
    public bool LocksBracket => BracketOff && Rules.ThreadLocker == LockerRule.Always && !SingleUse.Contains(FastenerRole.Bracket);

    /// <summary>True when the work needs the electric parking brake in a service position.</summary>
    public bool NeedsRoute => !InspectOnly && (IsMotor || IsPuller || (IsElectric && (HatOpen || SpotOff)));

    /// <summary>True when the route is by scan tool.</summary>
    public bool ByTool => NeedsRoute && Route == ServiceRoute.ScanTool;

    /// <summary>True when the route is the car's own sequence.</summary>
    public bool ByInCar => NeedsRoute && Route == ServiceRoute.InCar;

    /// <summary>True when the puller is released by hand.</summary>
    public bool ByPuller => NeedsRoute && PullsCables && Route == ServiceRoute.PullerRelease;

    /// <summary>True when the spindles go back by hand.</summary>
    public bool ByHand => IsMotor && NeedsRoute && Route == ServiceRoute.SpindleByHand;

    /// <summary>True when the brake itself goes into a service position, whose switch is tagged.</summary>
    public bool InService => ByTool || ByInCar || ByPuller;

    /// <summary>True when an actuator is unplugged.</summary>
    public bool Unplugs => ByHand || (IsMotor && AnyCaliperNew && NeedsRoute && Route is not null);

    /// <summary>True when the parking mechanism is opened and has to be closed or cycled again.</summary>
    public bool OpensMechanism => (IsCaliperType && !InspectOnly) || HatOpen || (SpotOff && IsElectric);

    /// <summary>True when the vehicle has this part and the work disturbs it.</summary>
    public bool Disturbs(Fitting fitting) => !InspectOnly && Fittings.Contains(fitting) && fitting switch
    {
        Fitting.HatPlug => HatOpen,
        Fitting.HoseBracket => BracketOff || AnyCaliperNew,
        Fitting.PinCaps or Fitting.RattleSpring => !IsFixed,
        _ => true,
    };

    /// <summary>True when this was found at either corner.</summary>
    public bool Found(CornerFinding finding) => ((Left.Found | Right.Found) & finding) != 0;

    /// <summary>The routes that can put this brake into service, whatever is at hand.</summary>
    public IReadOnlyList<ServiceRoute> Routes => !NeedsRoute ? [] : IsMotor ? [ServiceRoute.ScanTool, ServiceRoute.InCar, ServiceRoute.SpindleByHand]
        : PullsCables ? [ServiceRoute.ScanTool, ServiceRoute.InCar, ServiceRoute.PullerRelease] : [ServiceRoute.ScanTool, ServiceRoute.InCar];

    /// <summary>Why this cannot be sequenced, or null when it can.</summary>
    public string? NotCovered => !Identified ? null
        : Left.Architecture == Architecture.ElectricOnly || Right.Architecture == Architecture.ElectricOnly ? "No hydraulics at a corner: the maker's procedure, or the job stops. This is not covered here."
        : !(HasLever || IsMotor || IsHat || IsSpot || IsPlain) ? "Left and right do not belong to one parking brake: look again at both corners before anything is opened."
        : WantsShoes && !IsHat ? "There are no shoes in this brake. Open the job for pads, or for pads and rotors."
        : Route is { } route && NeedsRoute && !Routes.Contains(route) ? "That route does not exist on this brake."
        : null;

    /// <summary>The state of the car as it comes in: on the ground, in P, brake applied, pedal firm, hydraulics closed, nothing looked at, spindles out.</summary>
    public CarState Start()
    {
        var s = CarState.Blank
            .With(Car.AutoApply, IsElectric ? AutoApply.Active : AutoApply.None)
            .With(Car.Closing, OpensMechanism ? Closing.Open : Closing.NotNeeded)
            .With(Car.Route, !NeedsRoute ? Planning.Route.NotNeeded : Route is null ? Planning.Route.NotChosen : Planning.Route.Chosen)
            .With(Car.Codes, NeedsRoute ? Codes.Unread : Codes.NotAsked)
            .With(Car.Cable, (HasLever && !InspectOnly) || (HatOpen && (HatCable || PullsCables)) ? CableRun.Tight : CableRun.None)
            .With(Car.RightPart, WrongPart ? Asked.Due : Asked.Nothing);
        foreach (var number in Broken) s = s.With(Remedies.All[number - 1], Asked.Due);
        foreach (var side in Core.Sides.Both)
        {
            var corner = At(side);
            Fitted Small(Fitting fitting) => Disturbs(fitting) ? Fitted.On : Fitted.None;
            Asked Due(CornerFinding finding) => (corner.Found & finding) != 0 && !InspectOnly ? Asked.Due : Asked.Nothing;
            s = s.With(Corner.Identified, side, corner.Architecture is null ? Done.No : Done.Yes)
                .With(Corner.Lever, side, HasLever && !InspectOnly ? Lever.NotSeen : Lever.None)
                .With(Corner.Actuator, side, IsMotor ? Actuator.Plugged : Actuator.None)
                .With(Corner.Spindle, side, IsMotor ? Spindle.Out : Spindle.None)
                .With(Corner.ActuatorScrews, side, IsMotor ? Bolts.Tight : Bolts.None)
                .With(Corner.Method, side, corner.MethodUndecided ? MethodState.Undecided : MethodState.Known)
                .With(Corner.Shoes, side, HatOpen ? ShoesState.Set : ShoesState.None)
                .With(Corner.SlidePins, side, IsFixed ? Bolts.None : Bolts.Tight)
                .With(Corner.RotorScrews, side, Screws ? Bolts.Tight : Bolts.None)
                .With(Corner.NewBolts, side, NeedsNewBolts ? NewBolts.Missing : NewBolts.NotNeeded)
                .With(Corner.CaliperPart, side, corner.CaliperNew ? CaliperPart.Due : CaliperPart.Stays)
                .With(Corner.Spot, side, SpotOff ? SpotCaliper.On : SpotCaliper.None)
                .With(Corner.SpotBolts, side, SpotOff ? Bolts.Tight : Bolts.None)
                .With(Corner.Sensor, side, Small(Fitting.WearSensor))
                .With(Corner.RattleSpring, side, Small(Fitting.RattleSpring))
                .With(Corner.HoseBracket, side, Small(Fitting.HoseBracket))
                .With(Corner.PinCaps, side, Small(Fitting.PinCaps))
                .With(Corner.HatPlug, side, Small(Fitting.HatPlug))
                .With(Corner.CableEnd, side, HasLever && corner.CaliperNew ? Fitted.On : Fitted.None)
                .With(Corner.Hardware, side, Due(CornerFinding.FrozenPads))
                .With(Corner.PinKit, side, Due(CornerFinding.SeizedPin))
                .With(Corner.BrokenScrew, side, Due(CornerFinding.BrokenScrew))
                .With(Corner.StuckRotor, side, Due(CornerFinding.StuckRotor))
                .With(Corner.StuckWheel, side, Due(CornerFinding.StuckWheel))
                .With(Corner.Ridge, side, Due(CornerFinding.Ridge));
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

    private bool Both(Func<Architecture, bool> test) => Left.Architecture is { } left && Right.Architecture is { } right && test(left) && test(right);
}
