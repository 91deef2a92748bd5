namespace PatientPawl.Core.Torque;

/// <summary>The wrench to take, and those that serve.</summary>
/// <param name="Take">The one to take; null where the workshop has none that suits.</param>
/// <param name="Serving">Those that serve, the smallest first.</param>
public sealed record WrenchChoice(Wrench? Take, IReadOnlyList<Wrench> Serving)
{
    /// <summary>Which wrench to take: the smallest that serves, for it shows the figure best; where none does, the nearest, which says why not.</summary>
    /// <param name="line">The fastener line.</param>
    /// <param name="wrenches">The workshop's wrenches.</param>
    /// <param name="crowfoot">The crowfoot, if one is used: a wrench it does not suit is left out, the crowfoot never.</param>
    /// <param name="today">The day that calibrations are held against.</param>
    /// <exception cref="InputException">A crowfoot that suits no wrench: without it the figure would be another one.</exception>
    public static WrenchChoice For(TorqueLine line, IReadOnlyList<Wrench> wrenches, Crowfoot? crowfoot, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(line);
        ArgumentNullException.ThrowIfNull(wrenches);
        var suiting = wrenches.Where(w => crowfoot is null || crowfoot.Extension < w.GripLength).OrderBy(w => w.Maximum.NewtonMeters).ToArray();
        if (crowfoot is not null && suiting.Length == 0)
        {
            throw new InputException(new InputError("crowfoot.extensionMm", Figure.Of(crowfoot.Extension.Millimeters), "shorter than the grip of a wrench",
                wrenches.Count == 0 ? "A crowfoot is reckoned with its wrench, and the workshop has none yet." : "The crowfoot is as long as every wrench: measure it again."));
        }

        var serving = suiting.Where(w => TorqueSetting.Compute(line, w, crowfoot, today).WrenchServes).ToArray();
        double Apart(Wrench w) => Math.Abs(Math.Log(w.Maximum.NewtonMeters / line.Wanted.NewtonMeters));
        return new(serving.FirstOrDefault() ?? suiting.MinBy(w => (w.CalibratedUntil < today, Apart(w))), serving);
    }
}
