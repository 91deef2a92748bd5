using PatientPawl.Core.Planning;
using PatientPawl.Core.Workshop;

namespace PatientPawl.Core.Jobs;

/// <summary>What a technician can find at any step.</summary>
public enum FindingKind
{
    /// <summary>The piston does not go back, or its boot is torn: the caliper is renewed.</summary>
    StuckPiston,
    /// <summary>The rotor is not fit: the axle gets new ones.</summary>
    BadRotor,
    /// <summary>Pads that were to stay are not fit.</summary>
    BadPads,
    /// <summary>Parking shoes are not fit: lining loose, oiled or worn.</summary>
    BadShoes,
    /// <summary>Pads frozen in the bracket.</summary>
    FrozenPads,
    /// <summary>A slide pin is seized.</summary>
    SeizedPin,
    /// <summary>A rotor screw broke.</summary>
    BrokenScrew,
    /// <summary>The rotor is stuck on its hub.</summary>
    StuckRotor,
    /// <summary>The wheel is stuck on its hub.</summary>
    StuckWheel,
    /// <summary>The hat catches on its shoes.</summary>
    Ridge,
    /// <summary>A new part is the wrong one.</summary>
    WrongPart,
    /// <summary>Fluid shows where the circuit is shut.</summary>
    FluidShows,
    /// <summary>A hose collapsed, cracked, twisted or hung on by its caliper.</summary>
    HoseUnsound,
    /// <summary>A pipe corroded or rubbed.</summary>
    PipeUnsound,
    /// <summary>A bleed screw broken, rounded or seized.</summary>
    BleedScrewBroken,
    /// <summary>A thread stripped in bracket, knuckle or caliper.</summary>
    ThreadStripped,
    /// <summary>A wheel stud, nut or its seat damaged.</summary>
    StudDamaged,
    /// <summary>A wheel bearing has play or grinds.</summary>
    BearingPlay,
    /// <summary>A backing plate bent, torn or rusted through.</summary>
    BackingPlate,
    /// <summary>A wheel-speed sensor, its ring or its lead damaged.</summary>
    SpeedSensor,
    /// <summary>A parking cable frayed, or a lever that does not return.</summary>
    CableFrayed,
    /// <summary>A new part oily, damaged or defective.</summary>
    NewPartSpoiled,
    /// <summary>A warning lamp or a trouble code stays.</summary>
    LampStays,
    /// <summary>The pedal sinks, or stays soft.</summary>
    PedalSinks,
    /// <summary>The car pulls to one side.</summary>
    Pulls,
    /// <summary>Noise or shake on the drive.</summary>
    NoiseOnDrive,
}

/// <summary>A finding that can be reported, for people to choose from.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Name">Its name.</param>
/// <param name="PerCorner">True when it belongs to a corner.</param>
/// <param name="Does">What it changes in the job.</param>
public sealed record FindingCard(FindingKind Kind, string Name, bool PerCorner, string Does)
{
    /// <summary>The part it asks for beside those that its steps name; null for none.</summary>
    public string? Part { get; init; }

    // What is put right, and the step that does it: until then the same is not reported twice.
    internal (StateVariable<Asked> Asked, string StepId)? Mends { get; init; }

    // How it is put right, where one step serves several findings.
    internal string? How { get; init; }

    internal Func<PlanSetup, CarState, Side, bool> CanBe { get; init; } = (_, _, _) => true;
}

/// <summary>What a finding would change.</summary>
/// <param name="Minutes">How much longer, or shorter where it is below 0, the job becomes for one technician.</param>
/// <param name="Steps">Steps that come in, or stand in the plan once more.</param>
/// <param name="Parts">Parts that come in.</param>
public sealed record FindingPreview(int Minutes, IReadOnlyList<string> Steps, IReadOnlyList<string> Parts);

/// <summary>The findings that can be reported. Common practice, no source.</summary>
public static class FindingCatalogue
{
    /// <summary>All of them.</summary>
    public static IReadOnlyList<FindingCard> All { get; } =
    [
        new(FindingKind.StuckPiston, "Piston stuck or boot torn", true, "A new caliper with washers, and bleeding. The hose stays shut until the new one is in hand.")
            { CanBe = (s, c, side) => !s.At(side).CaliperUnfit && c.Get(Corner.CaliperPart, side) == CaliperPart.Old && c.Get(Corner.Caliper, side) != Caliper.Away },
        new(FindingKind.FrozenPads, "Pads frozen in bracket", true, "Abutments to bare metal, and new hardware.") { CanBe = (s, c, side) => Can(c, Corner.Hardware, side) },
        new(FindingKind.SeizedPin, "Slide pin seized", true, "A pin kit or a bracket.") { CanBe = (s, c, side) => !s.IsFixed && Can(c, Corner.PinKit, side) },
        new(FindingKind.BrokenScrew, "Rotor screw broken", true, "Flush and run without it, or drilled and renewed; the decision is recorded.") { CanBe = (s, c, side) => s.RotorHasScrews && c.Get(Corner.RotorScrews, side) is not (Bolts.None or Bolts.Out) && Can(c, Corner.BrokenScrew, side) },
        new(FindingKind.StuckRotor, "Rotor stuck on hub", true, "Freeing steps before it comes off.") { CanBe = (s, c, side) => s.RotorOff && c.Get(Corner.Rotor, side) == Rotor.Old && Can(c, Corner.StuckRotor, side) },
        new(FindingKind.StuckWheel, "Wheel stuck on hub", true, "A freeing step before it comes off.") { CanBe = (s, c, side) => c.Get(Corner.Wheel, side) == Wheel.On && Can(c, Corner.StuckWheel, side) },
        new(FindingKind.Ridge, "Hat catches on shoes", true, "The star wheel is backed off further.") { CanBe = (s, c, side) => s.HatOpen && c.Get(Corner.Rotor, side) != Rotor.Off && Can(c, Corner.Ridge, side) },
        new(FindingKind.BadShoes, "Shoe lining loose or oiled", true, "New parking shoes on both sides.") { CanBe = (s, _, _) => s.IsHat && !s.ShoesNew },
        new(FindingKind.BadRotor, "Rotor not fit", true, "New rotors and pads on both sides.") { CanBe = (s, c, _) => !s.Rotors },
        new(FindingKind.BadPads, "Pads not fit", true, "New pads on both sides.") { CanBe = (s, _, _) => !s.PadsNew },
        new(FindingKind.HoseUnsound, "Hose cracked or collapsed", true, "A new hose with washers; its corner is bled.")
            { Mends = (Corner.HoseMend, "hose-renewed"), CanBe = (_, c, side) => c.Get(Corner.Caliper, side) != Caliper.Away && Can(c, Corner.HoseMend, side) },
        new(FindingKind.BleedScrewBroken, "Bleed screw broken or seized", true, "A new screw, or a caliper where it stays in; its corner is bled.")
            { Mends = (Corner.ScrewMend, "bleed-screw-renewed"), CanBe = (_, c, side) => c.Get(Corner.Caliper, side) != Caliper.Away && Can(c, Corner.ScrewMend, side) },
        new(FindingKind.CableFrayed, "Parking cable frayed", true, "A new cable, laid with the cables slack, and the brake set again.")
            { Mends = (Corner.CableMend, "cable-renewed"), CanBe = (s, c, side) => s.HasCable && (!s.PullsCables || s.Route is not null) && Can(c, Corner.CableMend, side) },
        new(FindingKind.ThreadStripped, "Thread stripped", true, "An insert, or the part that carries it, before its bolt is torqued.")
            { Mends = (Corner.HubMend, HubMended), Part = "Thread insert, or the part that carries the thread", How = "Drilled square, insert flush, or a new part. Never a longer bolt or locker in its place." },
        new(FindingKind.StudDamaged, "Wheel stud or nut damaged", true, "A new stud and nut before the wheel is torqued.")
            { Mends = (Corner.HubMend, HubMended), Part = "Wheel stud and nut", How = "Stud drawn home with washers and an old nut, not hammered. Its neighbours are looked at too." },
        new(FindingKind.BearingPlay, "Wheel bearing has play", true, "A new bearing before the car moves.")
            { Mends = (Corner.HubMend, HubMended), Part = "Wheel bearing", How = "Caliper, bracket and rotor off for it. Hub nut new and torqued by the maker's data." },
        new(FindingKind.BackingPlate, "Backing plate bent or rusted", true, "Set right or renewed: it rubs, or lets the shoes lean.")
            { Mends = (Corner.HubMend, HubMended), Part = "Backing plate, where it does not come straight", How = "Straight and clear of the rotor all round, every fixing tight." },
        new(FindingKind.SpeedSensor, "Speed sensor or ring damaged", true, "Put right before the car moves; its lamp is asked at the end.")
            { Mends = (Corner.SpeedSensorMend, "speed-sensor-mended"), Part = "Wheel-speed sensor" },
        new(FindingKind.NewPartSpoiled, "New part oily or damaged", true, "It comes out where it is fitted, and another is compared with the old.")
            { CanBe = (s, c, _) => c.Get(Car.RightPart) != Asked.Due },
        new(FindingKind.PipeUnsound, "Pipe corroded or rubbed", false, "It is made sound before the pedal is pressed; both corners are bled.") { CanBe = (_, c, _) => c.Get(Car.Pipes) != Asked.Due },
        new(FindingKind.LampStays, "Lamp or code stays", false, "Its cause is found before the keys go back.") { Mends = (Car.Trouble, TroubleSettled), CanBe = (s, _, _) => s.IsElectric, How = "Read the code before it is cleared. Plug, voltage, tool not finished: then the lamp is looked at again." },
        new(FindingKind.PedalSinks, "Pedal sinks or stays soft", false, "The pedal does not count until its cause is found and it is proved again.")
            { Mends = (Car.Trouble, TroubleSettled), CanBe = (_, c, _) => c.Get(Car.Pedal) != Pedal.NotPumped, How = "Soft and springy: air, a pin beside its slot, a pad not seated, a part that gives. Firm and sinking: it goes somewhere; look for it, then the master cylinder." },
        new(FindingKind.Pulls, "Pulls to one side", false, "Its cause is found, and it is driven again.")
            { Mends = (Car.Trouble, TroubleSettled), CanBe = (_, c, _) => Rolls(c), How = "A pad that hangs, a pin, a hose, grease on a lining, tyres. What is wrong at a corner is reported there." },
        new(FindingKind.NoiseOnDrive, "Noise or shake on the drive", false, "Its cause is found, and it is driven again.")
            { Mends = (Car.Trouble, TroubleSettled), CanBe = (_, c, _) => Rolls(c), How = "Shield, clip on the rotor, pad loose, wheel, bedding. Light even pad noise at first is normal." },
        new(FindingKind.WrongPart, "Wrong part", false, "New parts that are fitted come out, and the work stops short of new ones until the right one has been compared with the old.") { CanBe = (s, c, _) => c.Get(Car.RightPart) != Asked.Due },
        new(FindingKind.FluidShows, "Fluid shows", true, "The circuit counts as open: it is bled before the pedal counts.") { CanBe = (s, c, side) => c.Get(Corner.Hydraulics, side) != HydraulicsState.Open },
    ];

    /// <summary>The card of a kind.</summary>
    public static FindingCard Card(this FindingKind kind) => All.First(c => c.Kind == kind);

    /// <summary>What can be reported at a corner as the job stands; with no corner, of the car.</summary>
    public static IReadOnlyList<FindingCard> At(JobState state, Side? side)
    {
        ArgumentNullException.ThrowIfNull(state);
        if (!state.Setup.Identified || state.Setup.InspectOnly || state.Setup.NotCovered is not null) return [];
        var open = Open(state, side);
        return [.. All.Where(c => c.PerCorner == side is not null && c.CanBe(state.Setup, state.Car, side ?? Side.Left) && !open.Contains(c))];
    }

    /// <summary>What was reported at a corner, or of the car, and has not been put right since.</summary>
    internal static IReadOnlyList<FindingCard> Open(JobState state, Side? side)
    {
        List<FindingCard> open = [];
        foreach (var e in state.Standing.Select(e => e.Event))
        {
            if (e is FindingReported found && found.Side == side && found.Kind.Card() is { Mends: not null } card && !open.Contains(card)) open.Add(card);
            if (e is StepDone done && done.Step.Side == side) open.RemoveAll(c => c.Mends?.StepId == done.Step.StepId);
        }

        // What another step settled, as a new caliper brings its own screw, is not asked for any more.
        return [.. open.Where(c => (side is { } at ? state.Car.Get(c.Mends!.Value.Asked, at) : state.Car.Get(c.Mends!.Value.Asked)) == Asked.Due)];
    }

    /// <summary>Parts that findings asked for, put right or not.</summary>
    internal static IEnumerable<string> Parts(JobState state) =>
        state.Standing.Select(e => e.Event).OfType<FindingReported>().Select(f => (f.Side, f.Kind.Card().Part)).Where(f => f.Part is not null).Distinct()
            .Select(f => $"{f.Part}{(f.Side is { } side ? $", {side.Word()}" : "")}, added by a finding");

    /// <summary>What reporting it would change, before it is.</summary>
    /// <exception cref="InputException">A finding that belongs to a corner without one, or the other way round.</exception>
    /// <exception cref="NotAllowedException">It cannot be found in this job as it stands.</exception>
    public static FindingPreview Preview(JobState state, FindingKind kind, Side? side)
    {
        ArgumentNullException.ThrowIfNull(state);
        var next = state.With(new(Guid.NewGuid(), state.Version + 1, JobRules.Report(state, kind, side, null), Guid.Empty, "", default, default));
        return new(next.MinutesLeft - state.MinutesLeft, [.. next.Remaining.Except(state.Remaining).Select(StepCatalogue.Words)], [.. RunSheets.LaidOut(next).Except(RunSheets.LaidOut(state))]);
    }

    /// <summary>What is wanted once this was found.</summary>
    internal static PlanSetup Onto(PlanSetup setup, FindingKind kind, Side? side) => kind switch
    {
        FindingKind.StuckPiston => Core.Sides.Both.Where(s => s == side || setup.Rules.Pairs == PairsRule.BothSides)
            .Aggregate(setup, (p, s) => p.With(s, c => c with { CaliperNew = true, CaliperUnfit = c.CaliperUnfit || s == side })),
        FindingKind.BadRotor => setup with { RotorFound = true },
        FindingKind.BadPads => setup with { PadsFound = true },
        FindingKind.BadShoes => setup with { ShoesFound = true },
        _ => setup,
    };

    /// <summary>What is so on the car once this was found. Proofs that rested on it fall by themselves.</summary>
    /// <param name="car">The car before.</param>
    /// <param name="kind">What was found.</param>
    /// <param name="side">The corner; null means both, where an event of the first format named none.</param>
    internal static CarState Onto(CarState car, FindingKind kind, Side? side)
    {
        foreach (var at in side is { } one ? [one] : Core.Sides.Both)
        {
            car = kind switch
            {
                // A new caliper takes the place of the stuck one: its hold is lifted.
                FindingKind.StuckPiston when car.Get(Corner.Piston, at) is Piston.Stuck or Piston.NotSure or Piston.Levered => car.With(Corner.Piston, at, Piston.Out),
                FindingKind.FrozenPads => car.With(Corner.Hardware, at, Asked.Due).With(Corner.LandsClean, at, Done.No),
                FindingKind.SeizedPin => car.With(Corner.PinKit, at, Asked.Due).With(Corner.PinsGreased, at, Done.No),
                FindingKind.BrokenScrew => car.With(Corner.BrokenScrew, at, Asked.Due).With(Corner.RotorScrews, at, Bolts.Cracked),
                FindingKind.StuckRotor => car.With(Corner.StuckRotor, at, Asked.Due),
                FindingKind.StuckWheel => car.With(Corner.StuckWheel, at, Asked.Due),
                FindingKind.Ridge => car.With(Corner.Ridge, at, Asked.Due),
                FindingKind.WrongPart or FindingKind.NewPartSpoiled when NewPartsOn(car, at) => car.With(Corner.WrongFitted, at, Asked.Due),
                FindingKind.FluidShows => car.With(Corner.Hydraulics, at, HydraulicsState.Open),
                _ when kind.Card() is { PerCorner: true, Mends: { } mends } => car.With(mends.Asked, at, Asked.Due),
                _ => car,
            };
        }

        if (kind.Card() is { PerCorner: false, Mends: { } asks }) car = car.With(asks.Asked, Asked.Due);
        return kind switch
        {
            FindingKind.StuckPiston => car.With(Car.NewParts, Done.No),
            FindingKind.WrongPart or FindingKind.NewPartSpoiled => car.With(Car.NewParts, Done.No).With(Car.RightPart, Asked.Due),
            FindingKind.PipeUnsound => car.With(Car.Pipes, Asked.Due),
            FindingKind.LampStays => car.With(Car.Codes, Codes.Unread),
            FindingKind.PedalSinks => car.With(Car.Pedal, Pedal.NotPumped),
            FindingKind.Pulls or FindingKind.NoiseOnDrive => car.With(Car.TestDrive, Done.No),
            _ => car,
        };
    }

    private const string HubMended = "hub-mended", TroubleSettled = "trouble-settled";

    private static bool Rolls(CarState car) => car.Get(Car.Position) == CarPosition.Ground && car.Get(Car.Pedal) == Pedal.Proved;

    private static bool NewPartsOn(CarState car, Side side) =>
        car.Get(Corner.Pads, side) == PadState.New || car.Get(Corner.Rotor, side) == Rotor.New || car.Get(Corner.Shoes, side) is ShoesState.NewLoose or ShoesState.NewSet;

    private static bool Can(CarState car, StateVariable<Asked> asked, Side side) => car.Get(asked, side) != Asked.Due;
}

/// <summary>How a plan changed, and why.</summary>
/// <param name="EventId">The event that changed it.</param>
/// <param name="Because">Why, in words.</param>
/// <param name="Added">Steps that came in.</param>
/// <param name="Gone">Steps that went out.</param>
/// <param name="Again">Steps done before that stand in the plan once more.</param>
public sealed record PlanChange(Guid EventId, string Because, IReadOnlyList<StepKey> Added, IReadOnlyList<StepKey> Gone, IReadOnlyList<StepKey> Again);
