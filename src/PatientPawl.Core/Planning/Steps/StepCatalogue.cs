using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Planning;

/// <summary>
/// Every step type, in the usual order of the work. The order here is a preference between steps that are allowed at the
/// same time; what is allowed follows from the preconditions and the interlocks alone. Minutes are estimates; common
/// practice, no source.
/// </summary>
public static class StepCatalogue
{
    /// <summary>The catalogue.</summary>
    public static IReadOnlyList<StepType> All { get; } =
    [
        .. Steps.Look.All, .. Steps.MakeSafe.All, .. Steps.Free.All, .. Steps.Judge.All, .. Steps.Clean.All, .. Steps.Retract.All, .. Steps.Fit.All, .. Steps.Close.All, .. Steps.Mend.All,
        .. Steps.Prove.All, .. Steps.LeftOpen.All,
    ];

    /// <summary>
    /// Steps of earlier versions that are no longer done: kept so that a job which did them folds to what it was. Their names stand in its
    /// record.
    /// </summary>
    internal static IReadOnlyList<StepType> Retired { get; } =
    [
        new("rotor-off-again", "Rotor off again", Stage.Free, Lane.Corner, Place.Corner, 4, "") { Makes = [Corner.Rotor.To(Rotor.Off)] },
        new("fluid-looked", "Look for fluid", Stage.Free, Lane.Car, Place.RoundCar, 3, "")
        {
            Makes = Corner.Hydraulics.BothTo(HydraulicsState.Closed),
            Outcomes = [new("fluid-shows", "Fluid shows", Corner.Hydraulics.BothTo(HydraulicsState.Open))],
        },
        new("bleed", "Bleed", Stage.Close, Lane.Car, Place.RoundCar, 20, "") { Makes = [.. Corner.Hydraulics.BothTo(HydraulicsState.Closed), .. Corner.Bled.BothTo(Done.Yes)] },
        .. Enumerable.Range(1, 16).Select(n => new StepType($"remedy-{n}", $"Put right, rule {n}", Stage.MakeSafe, Lane.Car, Place.RoundCar, 3, "")),
    ];

    /// <summary>A step as it is called, with its side, for example <c>Wheel off, left</c>; its id where nobody knows it.</summary>
    public static string Words(StepKey key)
    {
        ArgumentNullException.ThrowIfNull(key);
        return (Find(key.StepId)?.Name ?? key.StepId) + (key.Side is { } side ? $", {side.Word()}" : "");
    }

    private static readonly Dictionary<string, StepType> ById = All.Concat(Retired).ToDictionary(s => s.Id, StringComparer.Ordinal);

    private static readonly Dictionary<FastenerRole, IReadOnlyList<StepType>> ByRole = All.Where(s => s.Torques is not null).GroupBy(s => s.Torques!.Value).ToDictionary(g => g.Key, g => (IReadOnlyList<StepType>)[.. g]);

    /// <summary>The step type with this id, those of earlier versions too; null when there never was one.</summary>
    public static StepType? Find(string id) => ById.GetValueOrDefault(id);

    /// <summary>The steps that torque a role's fasteners.</summary>
    internal static IReadOnlyList<StepType> Torquing(FastenerRole role) => ByRole.GetValueOrDefault(role) ?? [];
}
