using PatientPawl.Core.Measuring;
using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Jobs;

/// <summary>The job does not allow this now. Nothing was recorded.</summary>
public sealed class NotAllowedException(string message, IReadOnlyList<string> because, IReadOnlyList<int> interlocks) : Exception(message)
{
    /// <summary>What is lacking, in words.</summary>
    public IReadOnlyList<string> Because { get; } = because;

    /// <summary>The interlocks that stand in the way.</summary>
    public IReadOnlyList<int> Interlocks { get; } = interlocks;
}

/// <summary>What comes with clicking on a step.</summary>
/// <param name="Step">The step.</param>
/// <param name="Readings">Readings.</param>
/// <param name="Acknowledged">Cautions acknowledged.</param>
/// <param name="Outcome">What was found instead of what was expected, by its id; null when it was as expected.</param>
/// <param name="Report">What a scan tool said.</param>
/// <param name="Note">A note.</param>
public sealed record ClickOn(StepKey Step, IReadOnlyList<Reading> Readings, IReadOnlyList<string> Acknowledged, string? Outcome, ToolReport? Report, string? Note);

/// <summary>What comes with signing a torque.</summary>
/// <param name="Step">The torque step.</param>
/// <param name="Index">Which of them, from 1.</param>
/// <param name="Wrench">The wrench; null when it cannot be verified.</param>
/// <param name="Crowfoot">The crowfoot, if one is used.</param>
/// <param name="Unit">The unit shown on the wrench.</param>
/// <param name="EnteredTorque">A figure entered by hand; only where the sheet has none.</param>
/// <param name="EnteredPerCorner">How many of them, with a figure entered by hand.</param>
/// <param name="UnverifiedReason">Why it cannot be verified; null when it is.</param>
public sealed record SignTorque(StepKey Step, int Index, Wrench? Wrench, Crowfoot? Crowfoot, TorqueUnit Unit, TorqueQuantity? EnteredTorque, int? EnteredPerCorner, string? UnverifiedReason)
{
    /// <summary>Why a figure that is asked about is right all the same; null when nothing is asked.</summary>
    public string? Reason { get; init; }

    /// <summary>True where a screw that has no figure anywhere is accepted hand-tight by whoever signs.</summary>
    public bool HandTight { get; init; }

    /// <summary>The setting that stood on the screen; null where there was none.</summary>
    public TorqueQuantity? Shown { get; init; }
}
