using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Tests.Planning.Twin;

/// <summary>
/// A look settles a doubt, and a task ends a want. Where there is none nobody is sent: what is asked twice is soon answered without looking.
/// Common practice, no source.
/// </summary>
internal static class Looks
{
    private static readonly Dictionary<string, Condition> InDoubt = new(StringComparer.Ordinal)
    {
        ["codes-read"] = Core.Planning.Car.Codes.Is(Codes.Unread),
        ["self-pressure-off"] = Core.Planning.Car.SelfPressure.Is(SelfPressure.NotRuledOut),
        ["service-verified"] = Core.Planning.Car.Brake.Is(ParkingBrake.Unknown),
        ["service-looked"] = Core.Planning.Car.Brake.Is(ParkingBrake.ServiceInDoubt),
        ["cable-looked"] = Core.Planning.Car.Cable.Is(CableRun.Unknown),
        ["spindle-verified"] = Corner.Spindle.Is(Spindle.Unknown),
        ["circuit-looked"] = Corner.Hydraulics.Is(HydraulicsState.Unknown),
        ["verdict-settled"] = Corner.Doubt.Is(Doubt.Open),
        // Told by its pulls that its screw has found its place; pulled again, its levers are to be looked at again.
        ["lever-cycled"] = Core.Planning.Car.Closing.Is(Closing.Open),
        ["shoe-brake-cycled"] = Core.Planning.Car.Closing.Is(Closing.Open),
        ["piston-home"] = Corner.Piston.Is(Piston.Out),
        ["piston-levered"] = Corner.Piston.Is(Piston.Out),
        ["piston-tried"] = Condition.All(Corner.Piston.Is(Piston.Out), Corner.Trial.Is(Asked.Nothing)),
        ["reservoir-again"] = Condition.All(Corner.Room.Is(Room.NotJudged), Corner.Judged.Is(Done.Yes)),
        ["torques-accepted"] = Core.Planning.Car.Acceptance.Is(Acceptance.Waiting),
        ["side-looked"] = Corner.Looked.Is(Done.No),
    };

    /// <summary>True for a look at what is known.</summary>
    public static bool Needless(CarState state, StepKey step) =>
        InDoubt.TryGetValue(step.StepId, out var doubt) && !CompiledCatalogue.Bind(doubt, step.Side).Holds(state.Raw);
}
