using PatientPawl.Core.Reasoning;
using PatientPawl.Core.Vehicles;
using UnitsNet;

namespace PatientPawl.Core.Hydraulics;

/// <summary>Whether the fluid that comes back will fit.</summary>
public enum RoomVerdict
{
    /// <summary>Fits under MAX.</summary>
    FitsUnderMax,
    /// <summary>Over MAX but under the brim: watch it.</summary>
    OverMaxUnderBrim,
    /// <summary>Draw the excess off first.</summary>
    DrawOffFirst,
    /// <summary>It is drawn down to MIN already, or would be: the rest is drawn while the pistons go back, in steps.</summary>
    DrawWhileRetracting,
}

/// <summary>The reservoir before and after a piston goes back.</summary>
/// <param name="RoomToMax">Room under MAX now; negative when over MAX.</param>
/// <param name="LevelAfter">Level after, per cent of the MIN to MAX band.</param>
/// <param name="DrawOff">How much to draw off first, never under MIN; 0 when it fits.</param>
/// <param name="Verdict">The verdict.</param>
/// <param name="Reasons">Why.</param>
public sealed record RoomResult(Volume RoomToMax, double LevelAfter, Volume DrawOff, RoomVerdict Verdict, Reasons Reasons) : IReasoned
{
    /// <summary>What is drawn while the pistons go back, because more than what stands over MIN cannot be drawn first; 0 where nothing is.</summary>
    public Volume DrawWhile { get; init; }
}

/// <summary>Predicts the rise in the reservoir before the piston moves.</summary>
[Engine]
public static class ReservoirRoom
{
    private const double Hair = 1e-6;

    /// <summary>How much of the headspace is trusted to watching: half of it. Common practice, no source.</summary>
    public const double WatchedShare = 0.5;

    /// <summary>
    /// Room to MAX = band × (1 - level). What rises into the lower half of the headspace is watched; beyond that, and whenever the level starts over MAX,
    /// so much is drawn off first that it ends at MAX. Never under MIN: what is more than that is drawn while the pistons go back.
    /// </summary>
    /// <param name="reservoir">Band and headspace.</param>
    /// <param name="levelPercent">Level now in per cent of the band, 0 to 150.</param>
    /// <param name="displaced">Fluid that comes back, 0 to 2000 mL.</param>
    /// <exception cref="InputException">A figure outside its range.</exception>
    public static RoomResult Judge(ReservoirSpec reservoir, double levelPercent, Volume displaced)
    {
        ArgumentNullException.ThrowIfNull(reservoir);
        new Checks().Range("levelPercent", levelPercent, 0, 150, "%").Range("displacedMl", displaced.Milliliters, 0, 2000, "mL")
            .Range("reservoir.bandMl", reservoir.Band.Milliliters, 10, 2000, "mL").Range("reservoir.headspaceMl", reservoir.Headspace.Milliliters, 0, 2000, "mL").ThrowIfAny();
        var band = reservoir.Band.Milliliters;
        var room = band * (1 - levelPercent / 100);
        var after = levelPercent + displaced.Milliliters / band * 100;
        var over = displaced.Milliliters - room;
        var overNow = levelPercent > 100;
        var fits = over <= Hair && !overNow;
        var watched = over <= reservoir.Headspace.Milliliters * WatchedShare + Hair && !overNow;
        // Down to MIN and no further.
        var draw = fits || watched ? 0 : Math.Min(over, Math.Max(band * levelPercent / 100, 0));
        var rest = fits || watched ? 0 : over - draw;
        var verdict = fits ? RoomVerdict.FitsUnderMax : watched ? RoomVerdict.OverMaxUnderBrim : draw > Hair ? RoomVerdict.DrawOffFirst : RoomVerdict.DrawWhileRetracting;
        var reasons = new Trail("ReservoirRoom.Judge")
            .Input("Level", $"{Figure.Of(levelPercent, 0)} % of MIN to MAX")
            .Formula("Room to MAX", "band × (1 - level)", $"{Figure.Of(band)} × (1 - {Figure.Of(levelPercent / 100)})", $"{Figure.Of(room, 1)} mL", "geometry")
            .Input("Comes back", $"{Figure.Of(displaced.Milliliters, 1)} mL")
            .Conclude(verdict switch
            {
                RoomVerdict.FitsUnderMax => $"Fits under MAX: {Figure.Of(after, 0)} % after. Do not fill now.",
                RoomVerdict.OverMaxUnderBrim => $"Over MAX but under the brim: {Figure.Of(after, 0)} % after. Watch it, and do not fill now.",
                RoomVerdict.DrawOffFirst => $"Draw off {Figure.Of(draw, 1)} mL first{(rest > Hair ? $", down to MIN, and {Figure.Of(rest, 1)} more while the pistons go back" : "")}.",
                _ => $"It stands at MIN: draw {Figure.Of(rest, 1)} mL while the pistons go back, in steps.",
            })
            .WouldChange("A level topped up on worn pads leaves no room.").Done();
        return new(Volume.FromMilliliters(room), after, Volume.FromMilliliters(draw), verdict, reasons) { DrawWhile = Volume.FromMilliliters(rest) };
    }
}
