using PatientPawl.Core.Planning;

namespace PatientPawl.Core.Jobs;

/// <summary>A finding that can be reported, for people to choose from.</summary>
/// <param name="Kind">Which.</param>
/// <param name="Name">Its name.</param>
/// <param name="PerCorner">True when it belongs to a corner.</param>
/// <param name="Does">What it changes in the job.</param>
public sealed record FindingCard(FindingKind Kind, string Name, bool PerCorner, string Does)
{
    /// <summary>The defects that it leaves on the car until they are put right, each with what it forbids; empty where it is only recorded, or changes what is wanted.</summary>
    public required IReadOnlyList<Defect> Leaves { get; init; }

    /// <summary>The part it asks for beside those that its steps name; null for none.</summary>
    public string? Part { get; init; }

    /// <summary>What its note has to say; null where it may be silent.</summary>
    public string? NoteWanted { get; init; }

    /// <summary>True when the vehicle remembers it: it stands in its next job too, and is offered to the sheet.</summary>
    public bool Learnt { get; init; }

    // What is put right, and the step that does it: until then the same is not reported twice.
    internal (StateVariable<Asked> Asked, string StepId)? Mends { get; init; }

    // How it is put right, where one step serves several findings.
    internal string? How { get; init; }

    // What it says at other steps from then on: where work or torque is other than usual because of it.
    internal Remark? Remark { get; init; }

    // True when it changes nothing that could tell whether it was reported: once is enough.
    internal bool Once => Mends is null && NoteWanted is null && Wants is null && OnCorner is null && OnCar is null;

    internal Func<PlanSetup, CarState, Side, bool> CanBe { get; init; } = (_, _, _) => true;

    // What is wanted once it was found; null where nothing more is.
    internal Func<PlanSetup, Side, PlanSetup>? Wants { get; init; }

    // What is so at its corner once it was found; at both where it belongs to the car.
    internal Func<PlanSetup, CarState, Side, CarState>? OnCorner { get; init; }

    // What is so on the car once it was found.
    internal Func<PlanSetup, CarState, CarState>? OnCar { get; init; }
}

/// <summary>A sentence that stands at other steps because of what was found.</summary>
/// <param name="StepIds">The steps.</param>
/// <param name="Says">The sentence; what was noted stands after it.</param>
internal sealed record Remark(IReadOnlyList<string> StepIds, string Says);

/// <summary>What a finding would change.</summary>
/// <param name="Minutes">How much longer, or shorter where it is below 0, the job becomes for one technician.</param>
/// <param name="Steps">Steps that come in, or stand in the plan once more.</param>
/// <param name="Parts">Parts that come in.</param>
public sealed record FindingPreview(int Minutes, IReadOnlyList<string> Steps, IReadOnlyList<string> Parts);

/// <summary>How a plan changed, and why.</summary>
/// <param name="EventId">The event that changed it.</param>
/// <param name="Because">Why, in words.</param>
/// <param name="Added">Steps that came in.</param>
/// <param name="Gone">Steps that went out.</param>
/// <param name="Again">Steps done before that stand in the plan once more.</param>
public sealed record PlanChange(Guid EventId, string Because, IReadOnlyList<StepKey> Added, IReadOnlyList<StepKey> Gone, IReadOnlyList<StepKey> Again);
