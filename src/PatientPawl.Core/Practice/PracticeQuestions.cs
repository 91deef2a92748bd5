using PatientPawl.Core.Planning;
using PatientPawl.Core.Torque;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Practice;

/// <summary>A choice.</summary>
/// <param name="Id">Its id, kept in stored events.</param>
/// <param name="Says">Its button.</param>
/// <param name="Set">What it sets a wrench to; null where it is about no torque.</param>
public sealed record PracticeOption(string Id, string Says, TorqueQuantity? Set = null);

/// <summary>What a step asks of somebody who practises, before anything shows how it is done.</summary>
/// <param name="Step">The step.</param>
/// <param name="Asks">The question.</param>
/// <param name="Options">What can be chosen.</param>
public sealed record PracticeQuestion(StepKey Step, string Asks, IReadOnlyList<PracticeOption> Options);

/// <summary>The questions of a run.</summary>
public static class PracticeQuestions
{
    internal static readonly IReadOnlyList<PracticeOption> Ways =
    [
        new("push", "Press it straight in"), new("turn-clockwise", "Press and turn clockwise, facing it"),
        new("turn-anticlockwise", "Press and turn anticlockwise, facing it"),
            new("hex-clockwise", "Turn the hex at the back clockwise, and press"),
        new("push-pairs", "Press opposite pistons together"), new("leave", "Leave it: the maker's procedure"),
    ];

    private static readonly IReadOnlyList<PracticeOption> Verdicts =
    [
        new("inside", "Everything passes"), new("too-close", "Too close to call, or not enough read"),
            new("outside", "Something is past its limit"),
    ];

    private static readonly IReadOnlyList<PracticeOption> StarWheel = [new("up", "Up"), new("down", "Down")];

    /// <summary>What a step asks; null where it asks nothing.</summary>
    /// <param name="scenario">The scenario.</param>
    /// <param name="seed">The run's seed: it shuffles the choices.</param>
    /// <param name="step">The step.</param>
    public static PracticeQuestion? Of(Scenario scenario, int seed, StepKey step)
    {
        ArgumentNullException.ThrowIfNull(scenario);
        ArgumentNullException.ThrowIfNull(step);
        if (step.Side is not { } side) return null;
        return step.StepId switch
        {
            "piston-home" => new(step, $"How does the {side.Word()} piston go home?", Ways),
            "star-wheel-backed" => new(step, $"Which way do you turn the {side.Word()} star wheel?", StarWheel),
            "measured" or "inspected" or "shoes-measured" => new(step, $"What do the {side.Word()} readings say?", Verdicts),
            _ => StepCatalogue.Find(step.StepId)?.Torques is { } role && scenario.Sheet.Line(role) is { } line
                ? Torque(scenario, seed, step, line) : null,
        };
    }

    /// <summary>The trap behind a torque that was set wrong; null for one that was set as it should be.</summary>
    internal static TrapId? TrapOf(string option) => option switch
    {
        "unit" => TrapId.UnitSlip,
        "others" => TrapId.OthersFigure,
        "as-written" => TrapId.CrowfootForgotten,
        _ => null,
    };

    private static PracticeQuestion Torque(Scenario scenario, int seed, StepKey step, TorqueLine line)
    {
        var wanted = line.Wanted.NewtonMeters;
        var crowfoot = scenario.Truth.Crowfoot is { } c && c.Role == line.Role ? c : null;
        var setting = Setting(line, crowfoot).OnTheScale.NewtonMeters;
        List<PracticeOption> options = [Option("right", setting, TorqueUnit.Nm), Option("unit", setting, TorqueUnit.LbfFt)];
        if (crowfoot is not null) options.Add(Option("as-written", wanted, TorqueUnit.Nm));
        var others = line.Role == FastenerRole.SlidePin ? FastenerRole.Bracket : FastenerRole.SlidePin;
        if (scenario.Sheet.Line(others) is { } other && Math.Abs(other.Wanted.NewtonMeters - wanted) > wanted * 0.1)
            options.Add(Option("others", other.Wanted.NewtonMeters, TorqueUnit.Nm));
        // Where the right one stands is the seed's: its place tells nothing.
        var turn = Math.Abs(unchecked(seed * 31 + step.StepId.Length)) % options.Count;
        var arm = crowfoot is null ? ""
            : $" You need a crowfoot, {Figure.Of(crowfoot.Extension.Millimeters, 0)} mm, "
                + $"straight on a {Figure.Of(crowfoot.Wrench.Millimeters, 0)} mm wrench.";
        return new(step, $"What do you set the wrench to for the {Fasteners.Words(line.Role)}s?{arm}",
            [.. options.Skip(turn), .. options.Take(turn)]);
    }

    private static PracticeOption Option(string id, double figure, TorqueUnit unit) =>
        new(id, $"{Figure.Of(figure, 1)} {TorqueReading.Words(unit)}",
        unit == TorqueUnit.LbfFt ? TorqueQuantity.FromPoundForceFeet(figure) : TorqueQuantity.FromNewtonMeters(figure));

    /// <summary>What the engine makes of the torque that a step asks for; null where it asks for none.</summary>
    internal static TorqueSet? Setting(Scenario scenario, StepKey step) =>
        StepCatalogue.Find(step.StepId)?.Torques is { } role && scenario.Sheet.Line(role) is { } line
            ? Setting(line, scenario.Truth.Crowfoot is { } c && c.Role == role ? c : null) : null;

    /// <summary>What the engine sets a wrench to that shows every figure and is in calibration for ever.</summary>
    internal static TorqueSet Setting(TorqueLine line, NeededCrowfoot? crowfoot)
    {
        var wrench = new Wrench("practice", "Practice", TorqueQuantity.FromNewtonMeters(300), TorqueQuantity.FromNewtonMeters(0.1),
            crowfoot?.Wrench ?? UnitsNet.Length.FromMillimeters(400), WrenchType.Setting, DateOnly.MaxValue);
        return TorqueSetting.Compute(line, wrench, crowfoot is null ? null : new(crowfoot.Extension, UnitsNet.Angle.Zero),
            DateOnly.MinValue);
    }
}
