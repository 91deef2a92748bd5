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
            { CanBe = (s, c, side) => !s.At(side).CaliperNew && c.Get(Corner.Caliper, side) != Caliper.Away },
        new(FindingKind.FrozenPads, "Pads frozen in bracket", true, "Abutments to bare metal, and new hardware.") { CanBe = (s, c, side) => Can(s, side, CornerFinding.FrozenPads) },
        new(FindingKind.SeizedPin, "Slide pin seized", true, "A pin kit or a bracket.") { CanBe = (s, c, side) => !s.IsFixed && Can(s, side, CornerFinding.SeizedPin) },
        new(FindingKind.BrokenScrew, "Rotor screw broken", true, "Flush and run without it, or drilled and renewed; the decision is recorded.") { CanBe = (s, c, side) => s.Screws && Can(s, side, CornerFinding.BrokenScrew) },
        new(FindingKind.StuckRotor, "Rotor stuck on hub", true, "Freeing steps before it comes off.") { CanBe = (s, c, side) => s.RotorOff && c.Get(Corner.Rotor, side) == Rotor.Old && Can(s, side, CornerFinding.StuckRotor) },
        new(FindingKind.StuckWheel, "Wheel stuck on hub", true, "A freeing step before it comes off.") { CanBe = (s, c, side) => c.Get(Corner.Wheel, side) == Wheel.On && Can(s, side, CornerFinding.StuckWheel) },
        new(FindingKind.Ridge, "Hat catches on shoes", true, "The star wheel is backed off further.") { CanBe = (s, c, side) => s.HatOpen && c.Get(Corner.Rotor, side) != Rotor.Off && Can(s, side, CornerFinding.Ridge) },
        new(FindingKind.BadShoes, "Shoe lining loose or oiled", true, "New parking shoes on both sides.") { CanBe = (s, _, _) => s.IsHat && !s.ShoesNew },
        new(FindingKind.BadRotor, "Rotor not fit", true, "New rotors and pads on both sides.") { CanBe = (s, c, _) => !s.Rotors },
        new(FindingKind.BadPads, "Pads not fit", true, "New pads on both sides.") { CanBe = (s, _, _) => !s.PadsNew },
        new(FindingKind.WrongPart, "Wrong part", false, "The work stops short of new parts until the right one has been compared with the old.") { CanBe = (s, c, _) => c.Get(Car.RightPart) != Asked.Due },
        new(FindingKind.FluidShows, "Fluid shows", false, "The circuit counts as open: it is bled before the pedal counts.") { CanBe = (s, c, _) => c.Get(Car.Hydraulics) is HydraulicsState.Closed or HydraulicsState.Unknown },
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

    /// <summary>What the setup is once this was found.</summary>
    internal static PlanSetup Onto(PlanSetup setup, FindingKind kind, Side? side)
    {
        PlanSetup Corner(CornerFinding finding) => setup.With(side!.Value, c => c with { Found = c.Found | finding });
        return kind switch
        {
            FindingKind.StuckPiston => Core.Sides.Both.Where(s => s == side || setup.Rules.Pairs == PairsRule.BothSides).Aggregate(setup, (p, s) => p.With(s, c => c with { CaliperNew = true })),
            FindingKind.BadRotor => setup with { RotorFound = true },
            FindingKind.BadPads => setup with { PadsFound = true },
            FindingKind.BadShoes => setup with { ShoesFound = true },
            FindingKind.FrozenPads => Corner(CornerFinding.FrozenPads),
            FindingKind.SeizedPin => Corner(CornerFinding.SeizedPin),
            FindingKind.BrokenScrew => Corner(CornerFinding.BrokenScrew),
            FindingKind.StuckRotor => Corner(CornerFinding.StuckRotor),
            FindingKind.StuckWheel => Corner(CornerFinding.StuckWheel),
            FindingKind.Ridge => Corner(CornerFinding.Ridge),
            FindingKind.WrongPart => setup with { WrongPart = true },
            _ => setup,
        };
    }

    /// <summary>What else is no longer so on the car once this was found.</summary>
    internal static CarState Onto(CarState car, FindingKind kind) => kind switch
    {
        FindingKind.StuckPiston => car.With(Planning.Car.NewParts, Done.No),
        FindingKind.WrongPart => car.With(Planning.Car.NewParts, Done.No).With(Planning.Car.RightPart, Asked.Due),
        FindingKind.FluidShows => car.With(Planning.Car.Hydraulics, HydraulicsState.Open).With(Planning.Car.Pedal, Pedal.NotPumped),
        _ => car,
    };

    private static bool Can(PlanSetup setup, Side side, CornerFinding finding) => (setup.At(side).Found & finding) == 0;
}

/// <summary>How a plan changed, and why.</summary>
/// <param name="EventId">The event that changed it.</param>
/// <param name="Because">Why, in words.</param>
/// <param name="Added">Steps that came in.</param>
/// <param name="Gone">Steps that went out.</param>
/// <param name="Again">Steps done before that stand in the plan once more.</param>
public sealed record PlanChange(Guid EventId, string Because, IReadOnlyList<StepKey> Added, IReadOnlyList<StepKey> Gone, IReadOnlyList<StepKey> Again);
