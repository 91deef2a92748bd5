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
}

/// <summary>A finding that can be reported, for people to choose from.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Name">Its name.</param>
/// <param name="PerCorner">True when it belongs to a corner.</param>
/// <param name="Does">What it changes in the job.</param>
public sealed record FindingCard(FindingKind Kind, string Name, bool PerCorner, string Does)
{
    internal Func<PlanSetup, CarState, Side, bool> CanBe { get; init; } = (_, _, _) => true;
}

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
        return [.. All.Where(c => c.PerCorner == side is not null && c.CanBe(state.Setup, state.Car, side ?? Side.Left))];
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
                FindingKind.WrongPart when NewPartsOn(car, at) => car.With(Corner.WrongFitted, at, Asked.Due),
                FindingKind.FluidShows => car.With(Corner.Hydraulics, at, HydraulicsState.Open),
                _ => car,
            };
        }

        return kind switch
        {
            FindingKind.StuckPiston => car.With(Car.NewParts, Done.No),
            FindingKind.WrongPart => car.With(Car.NewParts, Done.No).With(Car.RightPart, Asked.Due),
            _ => car,
        };
    }

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
