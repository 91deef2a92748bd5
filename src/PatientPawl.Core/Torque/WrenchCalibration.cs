using PatientPawl.Core.Measuring;
using PatientPawl.Core.Reasoning;
using TorqueQuantity = UnitsNet.Torque;

namespace PatientPawl.Core.Torque;

/// <summary>A point of a wrench's calibration.</summary>
/// <param name="Set">What stood on its scale, above 0 to 1000 N m.</param>
/// <param name="AsFound">What it gave before anybody touched it, above 0 to 1500 N m.</param>
/// <param name="AsLeft">What it gave after it was adjusted, or again where it was not; above 0 to 1500 N m.</param>
public sealed record CalibrationPoint(TorqueQuantity Set, TorqueQuantity AsFound, TorqueQuantity AsLeft);

/// <summary>A certificate of a torque wrench.</summary>
/// <param name="WrenchId">The wrench.</param>
/// <param name="Number">The certificate's number.</param>
/// <param name="On">The day of its calibration.</param>
/// <param name="Until">The last day that it counts for.</param>
/// <param name="UncertaintyPercent">Expanded uncertainty (k = 2) of the calibration, 0.01 to 10 %.</param>
/// <param name="Points">One to ten points, from a fifth of its maximum on.</param>
public sealed record WrenchCertificate(string WrenchId, string Number, DateOnly On, DateOnly Until, double UncertaintyPercent,
    IReadOnlyList<CalibrationPoint> Points)
{
    /// <summary>True where the laboratory's paper is kept beside it.</summary>
    public bool HasFile { get; init; }

    // An older one says nothing of a wrench that is used today.
    private static readonly DateOnly Earliest = new(2000, 1, 1);

    /// <summary>Refuses what no certificate says, all of it at once.</summary>
    /// <param name="wrench">The wrench.</param>
    /// <param name="others">Its other certificates: one of the same day takes that one's place, one from before the last is none to go by.</param>
    /// <param name="today">Today.</param>
    /// <exception cref="InputException">Naming each field, value and range.</exception>
    public WrenchCertificate Checked(Wrench wrench, IReadOnlyList<WrenchCertificate> others, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(wrench);
        ArgumentNullException.ThrowIfNull(others);
        var top = wrench.Maximum.NewtonMeters;
        var checks = new Checks().Text("number", Number, 40).Range("uncertaintyPercent", UncertaintyPercent, 0.01, 10, "%")
            .Range("points", Points?.Count ?? 0, 1, 10, "points");
        if (On < Earliest || On > today)
            checks.Add("on", Figure.Date(On), $"{Figure.Date(Earliest)} to {Figure.Date(today)}",
                "A calibration lies behind us, and not before this century.");
        if (others.Select(c => (DateOnly?)c.On).Max() is { } last && last > On)
            checks.Add("on", Figure.Date(On), $"from {Figure.Date(last)} on", "A later certificate is here already.");
        if (Until <= On) checks.Add("until", Figure.Date(Until), $"after {Figure.Date(On)}", "It counts to a day after its calibration.");
        for (var i = 0; i < (Points?.Count ?? 0); i++)
        {
            checks.Range($"points[{i}].setNm", Points![i].Set.NewtonMeters, WrenchCalibration.LeastShare * top, top, "N m")
                .Range($"points[{i}].asFoundNm", Points[i].AsFound.NewtonMeters, 0.01 * top, 1.5 * top, "N m")
                .Range($"points[{i}].asLeftNm", Points[i].AsLeft.NewtonMeters, 0.01 * top, 1.5 * top, "N m");
        }

        checks.ThrowIfAny();
        return this with { Number = Number.Trim(), WrenchId = wrench.Id };
    }
}

/// <summary>What a wrench's certificates say of it.</summary>
/// <param name="AsFoundPercent">Its worst deviation as it was found, %: positive where it shows more than it gives.</param>
/// <param name="AsLeftPercent">Its worst deviation as it was left, %.</param>
/// <param name="AsFound">Whether it was right until then.</param>
/// <param name="AsLeft">Whether it may be used from then on.</param>
/// <param name="DriftPercentAYear">How far it moves in a year, %; null where there was no certificate before.</param>
/// <param name="InUse">The deviation that torques are reckoned with from then on, as a share.</param>
/// <param name="Until">The last day that torques are set with it; before the calibration where it may not be used as it was left.</param>
/// <param name="Says">In words.</param>
/// <param name="Reasons">Why.</param>
public sealed record CalibrationAnswer(double AsFoundPercent, double AsLeftPercent, Verdict AsFound, Verdict AsLeft,
    double? DriftPercentAYear, double InUse, DateOnly Until, string Says, Reasons Reasons) : IReasoned;

/// <summary>Judges a torque wrench by its certificates, as found and as left.</summary>
[Engine]
public static class WrenchCalibration
{
    /// <summary>A wrench is calibrated, and used, from this share of its maximum on (ISO 6789-1, from memory).</summary>
    public const double LeastShare = 0.2;

    private const double DaysAYear = 365.25;

    /// <summary>
    /// Deviation is what its scale shows less what it gave, over what it gave (ISO 6789-1); its limit is the class's, its guard band the
    /// calibration's uncertainty. Torques are reckoned with the class's deviation, or with what the certificate leaves and its uncertainty where
    /// that is more; once two certificates tell how far it drifts, with what was left, the uncertainty and the drift.
    /// </summary>
    /// <param name="wrench">The wrench.</param>
    /// <param name="certificates">Its certificates in any order, at least one.</param>
    /// <exception cref="InputException">No certificate.</exception>
    public static CalibrationAnswer Judge(Wrench wrench, IReadOnlyList<WrenchCertificate> certificates)
    {
        ArgumentNullException.ThrowIfNull(wrench);
        ArgumentNullException.ThrowIfNull(certificates);
        if (certificates.Count == 0)
            throw new InputException(new InputError("certificates", "0", "at least one",
                "Without a certificate nothing can be said of it."));
        var all = certificates.OrderBy(c => c.On).ToArray();
        var last = all[^1];
        var limit = wrench.ClassDeviation * 100;
        var (found, left) = (Worst(last, p => p.AsFound), Worst(last, p => p.AsLeft));
        var trail = new Trail("WrenchCalibration.Judge").Input("Class", $"{Figure.Of(limit)} %", "iso-6789-1")
            .Input("Certificate", $"{last.Number}, {Figure.Date(last.On)}, uncertainty {Figure.Of(last.UncertaintyPercent)} %")
            .Formula("As found", "(set - given) / given, the worst point", Points(last, p => p.AsFound), $"{Figure.Of(found, 2)} %",
                "iso-6789-1")
            .Formula("As left", "(set - given) / given, the worst point", Points(last, p => p.AsLeft), $"{Figure.Of(left, 2)} %",
                "iso-6789-1");
        var doubt = last.UncertaintyPercent;
        Verdict was = Verdicts.Of(limit - Math.Abs(found), doubt), stays = Verdicts.Of(limit - Math.Abs(left), doubt);
        double? drift = null;
        var share = Math.Max(wrench.ClassDeviation, (Math.Abs(left) + doubt) / 100);
        if (all.Length > 1)
        {
            var before = all[^2];
            var moved = found - Worst(before, p => p.AsLeft);
            drift = moved * DaysAYear / Math.Max(1, last.On.DayNumber - before.On.DayNumber);
            share = (Math.Abs(left) + doubt + Math.Abs(moved)) / 100;
            trail.Formula("Drift", "as found now - as left before, by the years between",
                $"{Figure.Of(found, 2)} - {Figure.Of(found - moved, 2)}", $"{Figure.Of(drift.Value, 2)} % a year", "geometry");
        }

        var rule = all.Length > 1 ? "as left + uncertainty + drift since the last" : "the class, or as left + uncertainty where that is more";
        trail.Formula("Reckoned with", rule, $"{Figure.Of(Math.Abs(left), 2)} and {Figure.Of(doubt)} %", $"{Figure.Of(share * 100, 2)} %",
            "gum");
        var says = Says(was, stays);
        return new(found, left, was, stays, drift, share, stays == Verdict.Inside ? last.Until : last.On.AddDays(-1), says,
            trail.Conclude(says).WouldChange("Its next certificate.").Done());
    }

    /// <summary>A wrench as its certificates have it: the deviation torques are reckoned with, and until when.</summary>
    /// <param name="wrench">The wrench.</param>
    /// <param name="certificates">Its certificates; with none it is what was said of it, by its class.</param>
    internal static Wrench By(Wrench wrench, IReadOnlyList<WrenchCertificate> certificates)
    {
        if (certificates.Count == 0) return wrench with { CertifiedDeviation = null };
        var says = Judge(wrench, certificates);
        return wrench with { CertifiedDeviation = says.InUse, CalibratedUntil = says.Until };
    }

    private static string Says(Verdict found, Verdict left) => (found, left) switch
    {
        (_, not Verdict.Inside) => "As it was left it is not surely within its class: no torque is set with it.",
        (Verdict.Inside, _) => "It was right until then, and it is right.",
        (Verdict.Outside, _) => "It was wrong until then: what was torqued with it since its last certificate is checked again. It is right now.",
        _ => "Whether it was right until then is too close to call: ask for what was torqued with it since its last certificate. " +
            "It is right now.",
    };

    private static double Worst(WrenchCertificate certificate, Func<CalibrationPoint, TorqueQuantity> given) =>
        certificate.Points.Select(p => (p.Set.NewtonMeters - given(p).NewtonMeters) / given(p).NewtonMeters * 100).MaxBy(Math.Abs);

    private static string Points(WrenchCertificate certificate, Func<CalibrationPoint, TorqueQuantity> given) =>
        string.Join(", ", certificate.Points.Select(p => $"{Figure.Of(p.Set.NewtonMeters, 1)} gave {Figure.Of(given(p).NewtonMeters, 2)}"));
}
