using PatientPawl.Core.Identification;
using PatientPawl.Core.Retraction;
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

/// <summary>How the service brake of a corner is built.</summary>
public enum ServiceCaliper
{
    /// <summary>A sliding caliper on a bracket, its pistons on one side.</summary>
    Sliding,
    /// <summary>A fixed caliper with opposed pistons: no bracket, no slide pins, pads out with the caliper on.</summary>
    Opposed,
}

/// <summary>What does the parking.</summary>
public enum ParkingMechanism
{
    /// <summary>Nothing at this axle.</summary>
    None,
    /// <summary>A screw inside the caliper, turned by a lever.</summary>
    ScrewInCaliper,
    /// <summary>A spindle inside the piston, turned by a motor.</summary>
    Spindle,
    /// <summary>Shoes in the rotor's hat.</summary>
    ShoesInHat,
    /// <summary>A second, small caliper.</summary>
    SpotCaliper,
}

/// <summary>How the parking mechanism is worked.</summary>
public enum Actuation
{
    /// <summary>Not at this axle.</summary>
    None,
    /// <summary>A cable from a hand lever or foot pedal.</summary>
    Cable,
    /// <summary>An electric box that pulls the cables.</summary>
    Puller,
    /// <summary>A motor on the caliper, or on the spot caliper.</summary>
    CaliperMotor,
    /// <summary>A motor on the backing plate.</summary>
    PlateMotor,
}

/// <summary>What a brake is made of: three facts. An architecture is a name for a combination of them.</summary>
/// <param name="Service">The service caliper.</param>
/// <param name="Mechanism">What does the parking.</param>
/// <param name="Worked">How it is worked.</param>
public readonly record struct BrakeBuild(ServiceCaliper Service, ParkingMechanism Mechanism, Actuation Worked)
{
    /// <summary>The build that an architecture names; where it leaves how it is worked open, what was seen says.</summary>
    /// <param name="architecture">The architecture.</param>
    /// <param name="opposed">True when pistons were seen on both sides of the rotor.</param>
    /// <param name="seen">How it was seen to be worked; null when nobody looked.</param>
    public static BrakeBuild Of(Architecture architecture, bool opposed, Actuation? seen)
    {
        var service = opposed || architecture == Architecture.FixedHat ? ServiceCaliper.Opposed : ServiceCaliper.Sliding;
        return architecture switch
        {
            Architecture.CableScrew or Architecture.LeverPush or Architecture.RearHex => new(ServiceCaliper.Sliding, ParkingMechanism.ScrewInCaliper, Actuation.Cable),
            Architecture.PullerScrew => new(ServiceCaliper.Sliding, ParkingMechanism.ScrewInCaliper, Actuation.Puller),
            Architecture.MotorPush or Architecture.MotorTurn => new(ServiceCaliper.Sliding, ParkingMechanism.Spindle, Actuation.CaliperMotor),
            Architecture.HatShoes => new(service, ParkingMechanism.ShoesInHat, Actuation.Cable),
            Architecture.PullerHat => new(service, ParkingMechanism.ShoesInHat, Actuation.Puller),
            Architecture.MotorHat => new(service, ParkingMechanism.ShoesInHat, Actuation.PlateMotor),
            Architecture.FixedHat => new(service, ParkingMechanism.ShoesInHat, seen switch { Actuation.Puller => Actuation.Puller, Actuation.PlateMotor or Actuation.CaliperMotor => Actuation.PlateMotor, _ => Actuation.Cable }),
            Architecture.SpotCaliper => new(service, ParkingMechanism.SpotCaliper, seen == Actuation.PlateMotor ? Actuation.CaliperMotor : seen ?? Actuation.Cable),
            _ => new(service, ParkingMechanism.None, Actuation.None),
        };
    }
}

/// <summary>What is known of one corner when a plan is made.</summary>
/// <param name="Architecture">The architecture ruled for; null while it is not identified.</param>
/// <param name="MethodUndecided">True while both motor designs stand.</param>
public sealed record CornerSetup(Architecture? Architecture, bool MethodUndecided)
{
    /// <summary>Not identified yet.</summary>
    public static CornerSetup NotIdentified { get; } = new(null, false);

    /// <summary>True when pistons were seen on both sides of the rotor.</summary>
    public bool Opposed { get; init; }

    /// <summary>How the parking brake was seen to be worked, where the architecture leaves it open; null when nobody looked.</summary>
    public Actuation? Worked { get; init; }

    /// <summary>True when the caliper is to be renewed, by the job's scope or by a finding.</summary>
    public bool CaliperNew { get; init; }

    /// <summary>True when the caliper was found not to be fit: it does not go back, whatever the job is to end in.</summary>
    public bool CaliperUnfit { get; init; }

    /// <summary>What this corner's brake is made of; null while it is not identified.</summary>
    public BrakeBuild? Build => Architecture is { } a ? BrakeBuild.Of(a, Opposed, Worked) : null;
}

/// <summary>What a job is to end in. It can be changed at any moment; one engine plans for all of them.</summary>
public enum JobGoal
{
    /// <summary>What the scope and the findings ask for, handed over.</summary>
    Finish,
    /// <summary>Closed up with the parts that are there, the old ones where they are fit, and handed over.</summary>
    CloseUp,
    /// <summary>Fit to be moved in the yard at walking pace, never on a road.</summary>
    Yard,
    /// <summary>Left overnight, both sides assembled and on its wheels.</summary>
    NightAssembled,
    /// <summary>Left overnight on its stands.</summary>
    NightOnStands,
}

/// <summary>Goals in words.</summary>
public static class JobGoals
{
    /// <summary>A goal in a few words, for example <c>Close up with old parts</c>.</summary>
    public static string Words(this JobGoal goal) => goal switch
    {
        JobGoal.Finish => "Finish the job",
        JobGoal.CloseUp => "Close up with old parts",
        JobGoal.Yard => "Safe to move in the yard",
        JobGoal.NightAssembled => "Leave it assembled",
        JobGoal.NightOnStands => "Leave it on stands",
        _ => throw new ArgumentOutOfRangeException(nameof(goal), goal, "No such goal."),
    };

    /// <summary>True where the car is left for the night once it is reached.</summary>
    public static bool IsNight(this JobGoal goal) => goal is JobGoal.NightAssembled or JobGoal.NightOnStands;

    /// <summary>What holds once it is reached: what may be done with the car, and what not. Common practice, no source.</summary>
    public static string WhenReached(this JobGoal goal) => goal switch
    {
        JobGoal.Finish or JobGoal.CloseUp => "Every torque is signed and the brakes are proved. The record is ready to print.",
        JobGoal.Yard => "At walking pace, by one named driver, chocks at both stops. No road, no passenger.",
        JobGoal.NightAssembled => "Both sides are together and the pedal is proved. Tag the key: do not drive.",
        JobGoal.NightOnStands => "On stands, chocked. Nobody touches switch, pedal or key: tag them.",
        _ => throw new ArgumentOutOfRangeException(nameof(goal), goal, "No such goal."),
    };
}

/// <summary>
/// What a plan is made for: what the brake is made of, what the sheet says, how the house works, and what is wanted. Equal when every one of
/// these is; the state of the car is no part of it.
/// </summary>
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
    /// <summary>What the job is to end in.</summary>
    public JobGoal Goal { get; init; }

    /// <summary>True when a rotor that was to stay did not pass: the axle gets new ones.</summary>
    public bool RotorFound { get; init; }

    /// <summary>True when shoes that were to stay did not pass.</summary>
    public bool ShoesFound { get; init; }

    /// <summary>True when pads that were to stay did not pass.</summary>
    public bool PadsFound { get; init; }

    /// <summary>True when a rotor that stays must come off, so that its hub face is cleaned or it is turned on its studs.</summary>
    public bool HubFound { get; init; }

    /// <summary>Small parts this vehicle has.</summary>
    public IReadOnlyList<Fitting> Fittings { get; init; } = [];

    /// <summary>True when the sheet says that the parking brake is electric; settles what a spot caliper is worked by, where nobody looked.</summary>
    public bool SheetElectric { get; init; }

    /// <summary>Which corner carries the wear sensor, where the vehicle has one; null where the sheet is silent: then both are looked at.</summary>
    public SensorSide? SensorAt { get; init; }

    /// <summary>Whether a slide pin turns with its bolt and is held; null where the sheet is silent.</summary>
    public bool? PinsTurn { get; init; }

    /// <summary>A condition that a step is planned without: what a plan would be worth if it were forgotten. Never set in a job.</summary>
    internal (string StepId, Condition Condition)? Without { get; init; }

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
        SensorAt = sheet.PadSet?.SensorAt,
        PinsTurn = sheet.Line(FastenerRole.SlidePin)?.HoldingSpanner,
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

    /// <summary>What both corners are made of; null while one is not identified, or where they do not belong to one parking brake.</summary>
    public BrakeBuild? Build => BuildAt(Left) is { } left && BuildAt(Right) is { } right && left == right ? left : null;

    private BrakeBuild? BuildAt(CornerSetup corner) =>
        corner.Build is { Mechanism: ParkingMechanism.SpotCaliper } spot && corner.Worked is null && SheetElectric ? spot with { Worked = Actuation.CaliperMotor } : corner.Build;

    private bool Parks(ParkingMechanism mechanism) => Build is { } b && b.Mechanism == mechanism;

    private bool IsWorked(Actuation by) => Build is { } b && b.Worked == by;

    // What the brake is made of.

    /// <summary>True when the calipers have a cable lever, whoever pulls it.</summary>
    public bool HasLever => Parks(ParkingMechanism.ScrewInCaliper);

    /// <summary>True when a cable from a hand lever or foot pedal works a lever on the caliper.</summary>
    public bool IsCable => HasLever && IsWorked(Actuation.Cable);

    /// <summary>True when an electric box pulls the cables of levers on the calipers.</summary>
    public bool IsPuller => HasLever && IsWorked(Actuation.Puller);

    /// <summary>True when motors sit on the calipers and turn spindles in their pistons.</summary>
    public bool IsMotor => Parks(ParkingMechanism.Spindle);

    /// <summary>True when the parking brake is shoes in the hat.</summary>
    public bool IsHat => Parks(ParkingMechanism.ShoesInHat);

    /// <summary>True when opposed pistons sit in a fixed caliper: no bracket, no slide pins, pads out with the caliper on.</summary>
    public bool IsFixed => Build is { Service: ServiceCaliper.Opposed };

    /// <summary>True when a second caliper does the parking.</summary>
    public bool IsSpot => Parks(ParkingMechanism.SpotCaliper);

    /// <summary>True when there is no parking brake at these corners.</summary>
    public bool IsPlain => Parks(ParkingMechanism.None);

    /// <summary>True where this corner's piston is known to be pushed, and never turned.</summary>
    public bool PushesAt(Side side) => At(side) is { MethodUndecided: false, Architecture: { } a } corner
        && RetractionRuling.MethodOf(a, false, corner.Opposed) is RetractMethod.StraightPush or RetractMethod.SpindleThenPush or RetractMethod.OpposedPush;

    /// <summary>True when the parking brake acts through the caliper.</summary>
    public bool IsCaliperType => HasLever || IsMotor;

    /// <summary>True when a switch works the parking brake.</summary>
    public bool IsElectric => Build is { Worked: Actuation.Puller or Actuation.CaliperMotor or Actuation.PlateMotor };

    /// <summary>True when a motor on the backing plate works the shoes.</summary>
    public bool IsPlateMotor => IsWorked(Actuation.PlateMotor);

    /// <summary>True when cables work shoes in the hat.</summary>
    public bool HatCable => IsHat && IsWorked(Actuation.Cable);

    /// <summary>True when an electric box pulls cables, to calipers, to shoes or to a spot caliper.</summary>
    public bool PullsCables => IsWorked(Actuation.Puller);

    /// <summary>True when the plan keeps track of a cable: it is slackened for the work, by hand or with the puller.</summary>
    public bool HasCable => HasLever || HatCable || PullsCables;

    /// <summary>True when the vehicle has this part.</summary>
    public bool Has(Fitting fitting) => Fittings.Contains(fitting) && fitting switch
    {
        Fitting.HatPlug => IsHat,
        Fitting.PinCaps or Fitting.RattleSpring => !IsFixed,
        _ => true,
    };

    /// <summary>True when slide-pin bolts are renewed every time.</summary>
    public bool NewPinBolts => !IsFixed && SingleUse.Contains(FastenerRole.SlidePin);

    /// <summary>True when bracket or mounting bolts are renewed every time.</summary>
    public bool NewBracketBolts => SingleUse.Contains(FastenerRole.Bracket);

    // What is wanted.

    /// <summary>True when any caliper is to be renewed.</summary>
    public bool AnyCaliperNew => Left.CaliperNew || Right.CaliperNew;

    /// <summary>True where anything new rubs: pads, rotors or parking shoes.</summary>
    public bool HasNewLinings => PadsNew || Rotors || ShoesNew;

    /// <summary>True when a series of stops beds new pads in before the car is handed over.</summary>
    public bool BedsIn => PadsNew && Rules.BedIn == BedInRule.Series;

    /// <summary>True when nothing is opened: the brake is only looked at.</summary>
    public bool InspectOnly => Scope == JobScope.Inspect && !AnyCaliperNew;

    /// <summary>True when the job goes no further than what is there: it closes up, or makes safe for a while.</summary>
    public bool ClosesUp => Goal != JobGoal.Finish;

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

    /// <summary>True when the bracket comes off with the rotor.</summary>
    public bool BracketOff => RotorOff && BracketInTheWay;

    /// <summary>True when the rotor does not pass the bracket.</summary>
    public bool BracketInTheWay => !RotorComesOffWithBracketOn && !IsFixed;

    /// <summary>True when a spot caliper comes off with the rotor.</summary>
    public bool SpotOff => IsSpot && RotorOff;

    /// <summary>True when rotor screws have to be cracked.</summary>
    public bool Screws => RotorOff && RotorHasScrews;

    /// <summary>True when the holding rule lets the parking brake hold the hubs: it acts on this axle, the rotor has screws and comes off by plan and not by a late finding, and the service routine does not need the wheels on the ground.</summary>
    public bool BrakeHoldsHub => Screws && (WantsShoes || Scope == JobScope.PadsAndRotors) && !IsPlain && Rules.Holding == HoldingRule.HoldUntilCracked && !ServiceOnGround;

    /// <summary>True when the corner's single-use bolts come out in this job.</summary>
    public bool NeedsNewBolts => !InspectOnly && (NewPinBolts || ((BracketOff || (IsFixed && RotorOff)) && NewBracketBolts));

    /// <summary>True when the house puts thread locker on bracket bolts that are used again.</summary>
    public bool LocksBracket => BracketOff && Rules.ThreadLocker == LockerRule.Always && !SingleUse.Contains(FastenerRole.Bracket);

    /// <summary>True when the work needs the electric parking brake in a service position.</summary>
    public bool NeedsRoute => !InspectOnly && IsElectric && (IsMotor || IsPuller || HatOpen || SpotOff);

    /// <summary>True when the route is by scan tool.</summary>
    public bool ByTool => IsElectric && Route == ServiceRoute.ScanTool;

    /// <summary>True when the route is the car's own sequence.</summary>
    public bool ByInCar => IsElectric && Route == ServiceRoute.InCar;

    /// <summary>True when the puller is released by hand.</summary>
    public bool ByPuller => PullsCables && Route == ServiceRoute.PullerRelease;

    /// <summary>True when the spindles go back by hand.</summary>
    public bool ByHand => IsMotor && Route == ServiceRoute.SpindleByHand;

    /// <summary>True when the brake itself goes into a service position, whose switch is tagged.</summary>
    public bool InService => ByTool || ByInCar || ByPuller;

    /// <summary>The routes that can put this brake into service, whatever is at hand.</summary>
    public IReadOnlyList<ServiceRoute> Routes => !IsElectric ? [] : IsMotor ? [ServiceRoute.ScanTool, ServiceRoute.InCar, ServiceRoute.SpindleByHand]
        : PullsCables ? [ServiceRoute.ScanTool, ServiceRoute.InCar, ServiceRoute.PullerRelease] : [ServiceRoute.ScanTool, ServiceRoute.InCar];

    /// <summary>Why this cannot be sequenced, or null when it can.</summary>
    public string? NotCovered => !Identified ? null
        : Left.Architecture == Architecture.ElectricOnly || Right.Architecture == Architecture.ElectricOnly ? "No hydraulics at a corner: the maker's procedure, or the job stops. This is not covered here."
        : Build is null ? "Left and right do not belong to one parking brake: look again at both corners before anything is opened."
        : WantsShoes && !IsHat ? "There are no shoes in this brake. Open the job for pads, or for pads and rotors."
        : Route is { } route && NeedsRoute && !Routes.Contains(route) ? "That route does not exist on this brake."
        : null;

    /// <summary>
    /// The car as it comes in: on the ground, in P, brake applied, pedal firm, hydraulics closed, nothing looked at, spindles out. It depends on
    /// what the brake is made of and on the sheet, and on nothing that is wanted.
    /// </summary>
    public CarState Start()
    {
        var s = CarState.Blank
            .With(Car.AutoApply, IsElectric ? AutoApply.Active : AutoApply.None)
            .With(Car.Cable, HasCable ? CableRun.Tight : CableRun.None)
            .With(Car.SelfPressure, SelfPressure.NotRuledOut);
        foreach (var side in Core.Sides.Both)
        {
            Fitted Small(Fitting fitting) => Has(fitting) ? Fitted.On : Fitted.None;
            s = s.With(Corner.Identified, side, At(side).Architecture is null ? Done.No : Done.Yes)
                .With(Corner.Lever, side, HasLever ? Lever.NotSeen : Lever.None)
                .With(Corner.Actuator, side, IsMotor ? Actuator.Plugged : Actuator.None)
                .With(Corner.ActuatorScrews, side, IsMotor ? Bolts.Tight : Bolts.None)
                .With(Corner.Spindle, side, IsMotor ? Spindle.Out : Spindle.None)
                .With(Corner.Method, side, At(side).MethodUndecided ? MethodState.Undecided : MethodState.Known)
                .With(Corner.Shoes, side, IsHat ? ShoesState.Set : ShoesState.None)
                .With(Corner.SlidePins, side, IsFixed ? Bolts.None : Bolts.Tight)
                .With(Corner.RotorScrews, side, RotorHasScrews ? Bolts.Tight : Bolts.None)
                .With(Corner.NewPinBolts, side, NewPinBolts ? NewBolts.Missing : NewBolts.NotNeeded)
                .With(Corner.NewBracketBolts, side, NewBracketBolts ? NewBolts.Missing : NewBolts.NotNeeded)
                .With(Corner.Spot, side, IsSpot ? SpotCaliper.On : SpotCaliper.None)
                .With(Corner.SpotBolts, side, IsSpot ? Bolts.Tight : Bolts.None)
                .With(Corner.Sensor, side, SensorAt is null or SensorSide.Both || SensorAt == (side == Side.Left ? SensorSide.Left : SensorSide.Right) ? Small(Fitting.WearSensor) : Fitted.None)
                .With(Corner.RattleSpring, side, Small(Fitting.RattleSpring))
                .With(Corner.HoseBracket, side, Small(Fitting.HoseBracket))
                .With(Corner.PinCaps, side, Small(Fitting.PinCaps))
                .With(Corner.HatPlug, side, Small(Fitting.HatPlug))
                .With(Corner.CableEnd, side, HasLever ? Fitted.On : Fitted.None)
                .With(Corner.HoldingNuts, side, Fitted.Off);
        }

        return s;
    }

    /// <summary>
    /// Carries a state over when a corner becomes known: parts that nobody could have touched before come into being as they came. What is
    /// wanted changes nothing here.
    /// </summary>
    public CarState Reveal(CarState state, PlanSetup earlier)
    {
        ArgumentNullException.ThrowIfNull(state);
        ArgumentNullException.ThrowIfNull(earlier);
        var (before, after) = (earlier.Start(), Start());
        for (var slot = 0; slot < after.Raw.Length; slot++)
        {
            if (before[slot] != after[slot]) state = state.Set(slot, after[slot]);
        }

        return state;
    }

    /// <inheritdoc/>
    public bool Equals(PlanSetup? other) =>
        ReferenceEquals(this, other) || (other is not null
        && (Left, Right, Scope, Route, Rules) == (other.Left, other.Right, other.Scope, other.Route, other.Rules)
        && (RotorHasScrews, RotorComesOffWithBracketOn, ServiceOnGround, SimulatedPedal, SheetElectric) == (other.RotorHasScrews, other.RotorComesOffWithBracketOn, other.ServiceOnGround, other.SimulatedPedal, other.SheetElectric)
        && (Goal, RotorFound, ShoesFound, PadsFound, HubFound) == (other.Goal, other.RotorFound, other.ShoesFound, other.PadsFound, other.HubFound)
        && (SensorAt, PinsTurn, Without) == (other.SensorAt, other.PinsTurn, other.Without)
        && SingleUse.SequenceEqual(other.SingleUse) && Fittings.SequenceEqual(other.Fittings));

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Left, Right, Scope, Route, Rules, Goal, RotorFound, HashCode.Combine(ShoesFound, PadsFound, HubFound, RotorHasScrews, Fittings.Count, SingleUse.Count));
}
