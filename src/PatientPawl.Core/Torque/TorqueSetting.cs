using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Workshop;
using TorqueQuantity = UnitsNet.Torque;
using UnitsNet;

namespace PatientPawl.Core.Torque;

/// <summary>A question raised by the role or strength check. Never a refusal.</summary>
/// <param name="Kind">What raised it.</param>
/// <param name="Says">The question, for the technician.</param>
/// <param name="WantsReason">True when it is signed only with a word on why the figure is right all the same.</param>
public sealed record TorqueQuestion(TorqueQuestionKind Kind, string Says, bool WantsReason = false);

/// <summary>What raised a torque question.</summary>
public enum TorqueQuestionKind
{
    /// <summary>The figure is outside what is usual for the fastener's role.</summary>
    Role,
    /// <summary>The figure would overload or hardly load the bolt.</summary>
    Strength,
    /// <summary>The wrench cannot show, or cannot hold, the figure.</summary>
    Wrench,
}

/// <summary>What to set the wrench to.</summary>
/// <param name="AtTheBolt">The torque wanted at the bolt.</param>
/// <param name="AtTheBoltLbfFt">The same in lbf ft.</param>
/// <param name="Setting">What to set, exact.</param>
/// <param name="SettingLbfFt">The same in lbf ft.</param>
/// <param name="OnTheScale">What to set, rounded to the wrench's increment; equals the setting without a wrench.</param>
/// <param name="AppliedLow">Least torque at the bolt with the wrench's permissible deviation; null without a wrench.</param>
/// <param name="AppliedHigh">Most torque at the bolt; null without a wrench.</param>
/// <param name="WrenchServes">True when a wrench was given, reaches the figure and is in date.</param>
/// <param name="Questions">Questions to settle before pulling.</param>
/// <param name="Reasons">Why.</param>
public sealed record TorqueSet(
    TorqueQuantity AtTheBolt, double AtTheBoltLbfFt, TorqueQuantity Setting, double SettingLbfFt, TorqueQuantity OnTheScale,
    TorqueQuantity? AppliedLow, TorqueQuantity? AppliedHigh, bool WrenchServes, IReadOnlyList<TorqueQuestion> Questions, Reasons Reasons) : IReasoned
{
    /// <summary>Why nothing is set on this wrench, and which one would do; null where it serves, or none was given.</summary>
    public string? Refusal { get; init; }
}

/// <summary>Says what to set the wrench to, and asks when the figure looks wrong for the bolt.</summary>
[Engine]
public static class TorqueSetting
{
    // A wrench is trusted from a fifth of its maximum on (ISO 6789-1:2017).
    private const double LeastShare = 0.2;

    /// <summary>Usual torques by role in N m, cars to light vans. Common practice, no source.</summary>
    public static IReadOnlyDictionary<FastenerRole, (double Low, double High)> RoleBands { get; } = new Dictionary<FastenerRole, (double, double)>
    {
        [FastenerRole.SlidePin] = (20, 60),
        [FastenerRole.Bracket] = (45, 220),
        [FastenerRole.RotorScrew] = (5, 15),
        [FastenerRole.ActuatorScrew] = (6, 12),
        [FastenerRole.Banjo] = (20, 45),
        [FastenerRole.BleedScrew] = (6, 15),
        [FastenerRole.Wheel] = (80, 230),
        [FastenerRole.SpotCaliper] = (45, 220),
    };

    /// <summary>
    /// Computes the setting for a fastener line: crowfoot correction wanted × L / (L + E cos a), rounding to the wrench's
    /// scale, the applied interval, and the role, strength and wrench questions.
    /// </summary>
    /// <param name="line">The fastener line.</param>
    /// <param name="wrench">The wrench, or null when none is chosen yet.</param>
    /// <param name="crowfoot">The crowfoot, or null for a plain socket. Needs a wrench, for its grip length.</param>
    /// <param name="today">The local date, for the calibration check.</param>
    /// <exception cref="InputException">A figure outside its range, or a crowfoot with no wrench.</exception>
    public static TorqueSet Compute(TorqueLine line, Wrench? wrench, Crowfoot? crowfoot, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(line);
        var checks = new Checks();
        line.CheckInto(checks);
        checks.Range("wrench.maximumNm", wrench?.Maximum.NewtonMeters, 5, 1000, "N m")
            .Range("wrench.incrementNm", wrench?.Increment.NewtonMeters, 0.01, 10, "N m")
            .Millimetres("wrench.gripLengthMm", wrench?.GripLength, 100, 1500)
            .Millimetres("crowfoot.extensionMm", crowfoot?.Extension, 0, 500)
            .Range("crowfoot.angleFromInLineDeg", crowfoot?.AngleFromInLine.Degrees, 0, 180, "degrees");
        if (crowfoot is not null && wrench is null)
            checks.Add("wrench", "none", "a wrench with a known grip length", "A crowfoot changes the setting by the wrench's length: choose the wrench first.");
        if (crowfoot is not null && wrench is not null && crowfoot.Extension >= wrench.GripLength)
            checks.Add("crowfoot.extensionMm", Figure.Of(crowfoot.Extension.Millimeters), $"under the grip length, {Figure.Of(wrench.GripLength.Millimeters)} mm", "The crowfoot is as long as the wrench: measure both again.");
        checks.ThrowIfAny();

        var wanted = line.Wanted;
        var trail = new Trail("TorqueSetting.Compute");
        _ = line.High is { } high
            ? trail.Formula("At the bolt", "middle of the range", $"({Nm(line.Low)} + {Nm(high)}) / 2", $"{Nm(wanted)} N m", line.Typed ? "typed" : "spec-sheet")
            : trail.Input("At the bolt", $"{Nm(wanted)} N m", line.Typed ? "typed" : "spec-sheet");
        trail.Formula("In lbf ft", "N m / 1.355818", $"{Nm(wanted)} / 1.355818", $"{Figure.Of(wanted.PoundForceFeet, 1)} lbf ft", "nist-sp-811");

        var factor = 1.0;
        if (crowfoot is not null && wrench is not null)
        {
            var l = wrench.GripLength.Millimeters;
            var e = crowfoot.Extension.Millimeters;
            factor = l / (l + e * Math.Cos(crowfoot.AngleFromInLine.Radians));
            trail.Formula("Crowfoot", "wanted × L / (L + E cos a)", $"{Nm(wanted)} × {Figure.Of(l)} / ({Figure.Of(l)} + {Figure.Of(e)} × cos {Figure.Of(crowfoot.AngleFromInLine.Degrees)}°)",
                $"{Figure.Of(wanted.NewtonMeters * factor, 1)} N m", "geometry");
        }

        var setting = TorqueQuantity.FromNewtonMeters(wanted.NewtonMeters * factor);
        var scale = wrench is null ? setting : OnScale(setting, wrench.Increment);
        List<TorqueQuestion> questions = [.. RoleQuestions(line, wanted), .. StrengthQuestions(line, wanted, trail)];
        TorqueQuantity? low = null, most = null;
        var serves = false;
        if (wrench is not null)
        {
            var deviation = wrench.PermissibleDeviation;
            low = TorqueQuantity.FromNewtonMeters(scale.NewtonMeters / factor * (1 - deviation));
            most = TorqueQuantity.FromNewtonMeters(scale.NewtonMeters / factor * (1 + deviation));
            var (by, from) = wrench.CertifiedDeviation is null ? ("the permissible deviation", "iso-6789-1") : ("what its certificates leave", "gum");
            trail.Formula("Applied", $"setting / factor, give or take {by}", $"{Figure.Of(scale.NewtonMeters, 2)} / {Figure.Of(factor, 4)} ± {Figure.Of(deviation * 100)} %",
                $"{Figure.Of(low.Value.NewtonMeters, 1)} to {Figure.Of(most.Value.NewtonMeters, 1)} N m", from);
            var asked = WrenchQuestions(line, wrench, setting, low.Value, most.Value, today).ToList();
            serves = !asked.Any(q => q.Blocks);
            questions.AddRange(asked.Select(q => q.Question));
        }

        // A figure on a wrench that cannot show it is no figure: the sentence says which wrench would do.
        var refusal = wrench is null || serves ? null
            : $"Not with {wrench.Id}: {Figure.Of(setting.NewtonMeters, 1)} N m wants a wrench in calibration whose scale ends between {Figure.Of(setting.NewtonMeters, 1)} and {Figure.Of(setting.NewtonMeters / LeastShare, 1)} N m.";
        trail.Conclude(refusal ?? $"Set the wrench to {Figure.Of(scale.NewtonMeters, 1)} N m{(line.ThenAngle is { } angle ? $", then turn it {Figure.Of(angle.Degrees)}° further" : "")}.");
        if (crowfoot is null) trail.WouldChange("A crowfoot or offset spanner lowers the setting.");
        trail.WouldChange("Lubricant on a dry-specified thread raises the clamp load by about a third at the same torque.");
        return new(wanted, wanted.PoundForceFeet, setting, setting.PoundForceFeet, scale, low, most, serves, questions, trail.Done()) { Refusal = refusal };
    }

    /// <summary>Tensile stress area of a metric thread, (pi/4)(d - 0.938194 P)^2 (ISO 898-1), in mm².</summary>
    internal static double StressAreaMm2(double diameterMm, double pitchMm) => Math.PI / 4 * Math.Pow(diameterMm - 0.938194 * pitchMm, 2);

    /// <summary>Proof stress of a class in MPa (ISO 898-1, from memory); null when the class is not known.</summary>
    internal static double? ProofStressMPa(PropertyClass propertyClass, double diameterMm) => propertyClass switch
    {
        PropertyClass.C48 => 310,
        PropertyClass.C58 => 380,
        PropertyClass.C88 => diameterMm <= 16 ? 580 : 600,
        PropertyClass.C98 => 650,
        PropertyClass.C109 => 830,
        PropertyClass.C129 => 970,
        _ => null,
    };

    private static IEnumerable<TorqueQuestion> RoleQuestions(TorqueLine line, TorqueQuantity wanted)
    {
        var (low, high) = RoleBands[line.Role];
        var nm = wanted.NewtonMeters;
        if (nm >= low && nm <= high) yield break;
        var other = RoleBands.Where(b => b.Key != line.Role && nm >= b.Value.Low && nm <= b.Value.High).Select(b => Fasteners.Words(b.Key)).ToArray();
        var asLbfFt = TorqueQuantity.FromPoundForceFeet(nm).NewtonMeters;
        var asNm = wanted.PoundForceFeet;
        var asLbfIn = TorqueQuantity.FromPoundForceInches(nm).NewtonMeters;
        var said = $"{Nm(wanted)} N m is {(nm < low ? "low" : "high")} for a {Fasteners.Words(line.Role)}: usual is {low} to {high} N m.";
        if (other.Length > 0) said += $" Is this the figure of the {string.Join(" or ", other)}?";
        if (asLbfFt >= low && asLbfFt <= high) said += $" If the sheet says lbf ft, it is {Figure.Of(asLbfFt, 1)} N m.";
        else if (asNm >= low && asNm <= high) said += $" If {Figure.Of(asNm, 0)} was meant in N m, it was read as lbf ft.";
        if (asLbfIn >= low && asLbfIn <= high) said += $" If the sheet says lbf in, it is {Figure.Of(asLbfIn, 1)} N m.";
        yield return new(TorqueQuestionKind.Role, said, WantsReason: true);
    }

    private static IEnumerable<TorqueQuestion> StrengthQuestions(TorqueLine line, TorqueQuantity wanted, Trail trail)
    {
        // Hollow bolts carry less than their thread says, and a wheel stud's class is rarely stamped.
        if (line.Role is FastenerRole.Banjo or FastenerRole.BleedScrew) yield break;
        if (line.ThreadDiameter is not { } diameter || line.ThreadPitch is not { } pitch) yield break;
        var d = diameter.Millimeters;
        if (ProofStressMPa(line.Class, d) is not { } proof) yield break;
        var area = StressAreaMm2(d, pitch.Millimeters);
        double Stress(double k) => wanted.NewtonMeters * 1000 / (k * d) / area;
        double dry = Stress(0.20), wet = Stress(0.15);
        trail.Formula("Stress in the bolt", "T / (K d As)", $"{Nm(wanted)} N m, K 0.20, {line.Thread}, As {Figure.Of(area, 1)} mm²", $"{Figure.Of(dry, 0)} MPa of {proof} proof", "iso-898-1")
            .Evidence("Nut factor", "K 0.20 dry, 0.15 lubricated", "practice-friction");
        if (dry > proof) yield return new(TorqueQuestionKind.Strength, $"{Nm(wanted)} N m would overload an {line.Thread} bolt of this class: {Figure.Of(dry, 0)} MPa against {proof}.", WantsReason: true);
        else if (wet > proof) yield return new(TorqueQuestionKind.Strength, "Dry threads only: with lubricant this figure overloads the bolt.");
        else if (dry < proof / 10) yield return new(TorqueQuestionKind.Strength, $"Very low for this bolt: {Figure.Of(dry, 0)} MPa of {proof}. Right unit?", WantsReason: true);
    }

    private static IEnumerable<(TorqueQuestion Question, bool Blocks)> WrenchQuestions(TorqueLine line, Wrench wrench, TorqueQuantity setting, TorqueQuantity low, TorqueQuantity most, DateOnly today)
    {
        var max = wrench.Maximum.NewtonMeters;
        if (setting.NewtonMeters < LeastShare * max || setting.NewtonMeters > max)
            yield return (new(TorqueQuestionKind.Wrench, $"{wrench.Id} reads well from {Figure.Of(LeastShare * max, 1)} to {Figure.Of(max, 1)} N m. Take another wrench."), true);
        if (today > wrench.CalibratedUntil)
            yield return (new(TorqueQuestionKind.Wrench, $"{wrench.Id} was in calibration until {wrench.CalibratedUntil:yyyy-MM-dd}. Take another wrench."), true);
        if (line.High is { } high && (low < line.Low || most > high))
            yield return (new(TorqueQuestionKind.Wrench, $"The sheet's band {Nm(line.Low)} to {Nm(high)} N m is narrower than {wrench.Id} can hold."), false);
    }

    private static TorqueQuantity OnScale(TorqueQuantity setting, TorqueQuantity increment)
    {
        var steps = Math.Round(setting.NewtonMeters / increment.NewtonMeters, MidpointRounding.AwayFromZero);
        return TorqueQuantity.FromNewtonMeters(Math.Round(steps * increment.NewtonMeters, 6));
    }

    private static string Nm(TorqueQuantity torque) => Figure.Of(torque.NewtonMeters, 1);
}
