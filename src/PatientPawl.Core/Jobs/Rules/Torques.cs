using PatientPawl.Core.Planning;
using PatientPawl.Core.Practice;
using PatientPawl.Core.Torque;

namespace PatientPawl.Core.Jobs;

/// <summary>Torques signed.</summary>
public static partial class JobRules
{
    /// <summary>Signs one torque.</summary>
    /// <exception cref="InputException">A figure that cannot be, or a wrench that does not serve.</exception>
    /// <exception cref="NotAllowedException">The step is not allowed now.</exception>
    public static TorqueSigned Sign(JobState state, SignTorque command, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(command);
        RequireOpen(state);
        if (StepCatalogue.Find(command.Step.StepId) is not { Torques: { } role })
            throw new InputException(new InputError("stepId", Figure.Shorten(command.Step.StepId), "a torque step", "That step carries no torque."));
        if (command.Step.Side is null) throw new InputException(new InputError("side", "none", "left or right", "A torque belongs to a corner."));
        RequireAllowed(state, command.Step);
        PracticeRules.RequireAnswer(state, command.Step);
        if (command.HandTight) return HandTight(state, role, command);
        if (command.UnverifiedReason is { } noFigure && role == FastenerRole.ActuatorScrew && command.EnteredTorque is null && state.LineAt(role, command.Step.Side) is null)
            return WithoutFigure(state, role, command, noFigure);
        var line = LineFor(state, role, command);
        new Checks().Range("index", command.Index, 1, line.PerCorner, "").ThrowIfAny();
        if (state.Signatures(command.Step).Any(s => s.Index == command.Index))
            throw new NotAllowedException($"Number {command.Index} is signed.", ["Take the next one."], []);
        if (command.UnverifiedReason is { } why)
        {
            new Checks().Text("unverifiedReason", why, 200).ThrowIfAny();
            return new(command.Step, command.Index, line, null, null, null, command.Unit, false, why.Trim());
        }

        var wrench = command.Wrench ?? throw new InputException(new InputError("wrenchId", "none", "a wrench of the workshop", "Choose the wrench: the record carries it."));
        var set = TorqueSetting.Compute(line, wrench, command.Crowfoot, today);
        if (!set.WrenchServes)
            throw new InputException(new InputError("wrenchId", wrench.Id, "a wrench that reaches the figure and is in date", set.Refusal!));
        RequireShown(command, set);
        var reason = string.IsNullOrWhiteSpace(command.Reason) ? state.Signatures(command.Step).FirstOrDefault(s => s is { Verified: true, Reason: not null })?.Reason : command.Reason.Trim();
        if (reason is null && set.Questions.FirstOrDefault(q => q.WantsReason) is { } asked)
            throw new InputException(new InputError("reason", "nothing", "why the figure is right", $"{asked.Says} Say why it is right all the same."));
        if (reason is null && Twin(state, line) is { } twin)
        {
            throw new InputException(new InputError("reason", "nothing", "why the figure is right",
                $"{Figure.Of(line.Wanted.NewtonMeters, 1)} N m was entered for the {Fasteners.Words(twin)}s too: is one of them the other's? Say why it is right all the same."));
        }

        return new(command.Step, command.Index, line, set, wrench, command.Crowfoot, command.Unit, true, reason);
    }

    /// <summary>Pins and bracket have different figures: the same one, entered by hand for both, is asked about. The role that had it first; null when none.</summary>
    private static FastenerRole? Twin(JobState state, TorqueLine line)
    {
        FastenerRole[] pair = [FastenerRole.SlidePin, FastenerRole.Bracket];
        if (!line.Typed || !pair.Contains(line.Role)) return null;
        return state.Standing.Select(e => e.Event).OfType<TorqueSigned>().Select(t => t.Line)
            .FirstOrDefault(l => l.Role != line.Role && pair.Contains(l.Role) && Math.Abs(l.Wanted.NewtonMeters - line.Wanted.NewtonMeters) < 0.05)?.Role;
    }

    /// <summary>
    /// True where a screw that only holds a part in its place has no figure anywhere. Never a pin, bracket, banjo, bleed screw, actuator or
    /// wheel fastener: those wait for a figure, or for the lead.
    /// </summary>
    internal static bool MayBeHandTight(JobState state, FastenerRole role) => role == FastenerRole.RotorScrew && state.Opened?.Sheet.Line(role) is null;

    /// <summary>An actuator screw that has no figure anywhere: tightened with feeling, and the lead accepts it by name and reason before the car moves.</summary>
    private static TorqueSigned WithoutFigure(JobState state, FastenerRole role, SignTorque command, string why)
    {
        var count = state.Signatures(command.Step).FirstOrDefault()?.Line.PerCorner ?? command.EnteredPerCorner ?? 2;
        new Checks().Range("enteredPerCorner", count, 1, 10, "").Range("index", command.Index, 1, count, "").Text("unverifiedReason", why, 200).ThrowIfAny();
        if (state.Signatures(command.Step).Any(s => s.Index == command.Index)) throw new NotAllowedException($"Number {command.Index} is signed.", ["Take the next one."], []);
        var line = new TorqueLine(role, count, null, null, PropertyClass.NotKnown, "as found", UnitsNet.Torque.FromNewtonMeters(1), null, false, true, false, "No figure anywhere") { Typed = true };
        return new(command.Step, command.Index, line, null, null, null, command.Unit, false, why.Trim()) { NoFigure = true };
    }

    private static TorqueSigned HandTight(JobState state, FastenerRole role, SignTorque command)
    {
        if (!MayBeHandTight(state, role))
            throw new NotAllowedException($"A {Fasteners.Words(role)} is not accepted hand-tight.", [state.Opened?.Sheet.Line(role) is null ? "It waits for the maker's figure, or for the lead." : "The sheet has its figure."], []);
        var count = state.Signatures(command.Step).FirstOrDefault()?.Line.PerCorner ?? command.EnteredPerCorner ?? 1;
        new Checks().Range("enteredPerCorner", count, 1, 10, "").Range("index", command.Index, 1, count, "").ThrowIfAny();
        if (state.Signatures(command.Step).Any(s => s.Index == command.Index)) throw new NotAllowedException($"Number {command.Index} is signed.", ["Take the next one."], []);
        // No figure stands for it: the least there is, never shown as one.
        var line = new TorqueLine(role, count, null, null, PropertyClass.NotKnown, "as found", UnitsNet.Torque.FromNewtonMeters(1), null, false, true, false, "Hand-tight") { Typed = true };
        return new(command.Step, command.Index, line, null, null, null, command.Unit, true, "no figure anywhere: hand-tight") { HandTight = true };
    }

    /// <summary>What stood on the screen is what is signed for: a sheet, a wrench or a crowfoot may have changed since.</summary>
    private static void RequireShown(SignTorque command, TorqueSet set)
    {
        if (command.Shown is not { } shown || Math.Abs(shown.NewtonMeters - set.OnTheScale.NewtonMeters) < 0.05) return;
        throw new InputException(new InputError("shownNm", $"{Figure.Of(shown.NewtonMeters, 1)} N m", $"{Figure.Of(set.OnTheScale.NewtonMeters, 1)} N m",
            $"The screen showed {Figure.Of(shown.NewtonMeters, 1)} N m and it is {Figure.Of(set.OnTheScale.NewtonMeters, 1)} now: look at the figure again before it is signed."));
    }

    /// <summary>The fastener line of a torque step: the sheet's, or the one entered by hand where the sheet has none.</summary>
    private static TorqueLine LineFor(JobState state, FastenerRole role, SignTorque command)
    {
        if (state.LineAt(role, command.Step.Side) is { } line) return line;
        if (state.Signatures(command.Step).FirstOrDefault() is { } earlier) return earlier.Line;
        if (command.EnteredTorque is not { } torque)
            throw new InputException(new InputError("enteredTorqueNm", "nothing", "1 to 500 N m", $"The sheet has no figure for a {Fasteners.Words(role)}: enter the maker's, with its unit."));
        var entered = new TorqueLine(role, command.EnteredPerCorner ?? 0, null, null, PropertyClass.NotKnown, "as found", torque, null, false, true, false, "Entered by hand") { Typed = true };
        var checks = new Checks();
        entered.CheckInto(checks);
        checks.ThrowIfAny();
        return entered;
    }
}
