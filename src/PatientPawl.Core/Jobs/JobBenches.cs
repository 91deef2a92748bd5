using PatientPawl.Core.Measuring;
using PatientPawl.Core.Pads;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Rotors;
using PatientPawl.Core.Shoes;

namespace PatientPawl.Core.Jobs;

/// <summary>What stands on a bench and is not stored yet: it is judged with what is, on the job's own sheet.</summary>
/// <param name="Facts">What is known beside the readings; null takes the stored ones.</param>
/// <param name="Left">Readings of the left corner.</param>
/// <param name="Right">Readings of the right corner.</param>
public sealed record Unsaved<TFacts>(TFacts? Facts, IReadOnlyList<PointReading> Left, IReadOnlyList<PointReading> Right) where TFacts : class
{
    internal IReadOnlyList<PointReading> Of(Side side) => side == Side.Left ? Left : Right;
}

/// <summary>The benches as the readings of a job fill them.</summary>
[Engine]
public static partial class JobBenches
{
    /// <summary>The shoe bench of a corner.</summary>
    /// <exception cref="InputException">Readings that contradict each other.</exception>
    public static ShoeBenchAnswer Shoes(JobState state, Side side, bool newDrum, int? tryClicks, IReadOnlyList<Instrument> onHand, Unsaved<ShoeFacts>? unsaved = null)
    {
        ArgumentNullException.ThrowIfNull(state);
        var file = state.Corner(side);
        return ShoeBench.Judge([.. file.Standing(), .. unsaved?.Of(side) ?? []], unsaved?.Facts ?? file.Shoes ?? ShoeFacts.None, state.Opened!.Sheet.Drum, newDrum, tryClicks, onHand);
    }

    /// <summary>The rotor bench of a corner.</summary>
    /// <exception cref="InputException">Readings that contradict each other.</exception>
    public static RotorBenchAnswer Rotor(JobState state, Side side, IReadOnlyList<Instrument> onHand, Unsaved<RotorFacts>? unsaved = null)
    {
        ArgumentNullException.ThrowIfNull(state);
        var file = state.Corner(side);
        return RotorBench.Judge([.. file.Standing(), .. unsaved?.Of(side) ?? []], unsaved?.Facts ?? state.RotorFacts(side), state.Opened!.Sheet.Rotor, side, onHand);
    }

    /// <summary>The pad bench of the axle.</summary>
    /// <exception cref="InputException">Readings that contradict each other.</exception>
    public static PadBenchAnswer Pads(JobState state, IReadOnlyList<Instrument> onHand, Unsaved<PadFacts>? unsaved = null)
    {
        ArgumentNullException.ThrowIfNull(state);
        return PadBench.Judge([.. Sides.Both.SelectMany(s => state.Corner(s).Standing().Concat(unsaved?.Of(s) ?? []).Select(r => new SidedReading(s, r)))], unsaved?.Facts ?? JobPads.Facts(state), state.Opened!.Sheet.Pads, onHand, state.Setup.Build);
    }
}
