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
}

/// <summary>The reservoir before and after a piston goes back.</summary>
/// <param name="RoomToMax">Room under MAX now; negative when over MAX.</param>
/// <param name="LevelAfter">Level after, per cent of the MIN to MAX band.</param>
/// <param name="DrawOff">How much to draw off first; 0 when it fits.</param>
/// <param name="Verdict">The verdict.</param>
/// <param name="Reasons">Why.</param>
public sealed record RoomResult(Volume RoomToMax, double LevelAfter, Volume DrawOff, RoomVerdict Verdict, Reasons Reasons) : IReasoned;

/// <summary>Predicts the rise in the reservoir before the piston moves.</summary>
[Engine]
public static class ReservoirRoom
{
    /// <summary>Room to MAX = band × (1 - level). Over the brim (MAX plus headspace) means draw off the displaced fluid less the room to MAX first.</summary>
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
        var verdict = over <= 0 ? RoomVerdict.FitsUnderMax : over <= reservoir.Headspace.Milliliters ? RoomVerdict.OverMaxUnderBrim : RoomVerdict.DrawOffFirst;
        var draw = verdict == RoomVerdict.DrawOffFirst ? over : 0;
        var reasons = new Trail("ReservoirRoom.Judge")
            .Input("Level", $"{Figure.Of(levelPercent, 0)} % of MIN to MAX")
            .Formula("Room to MAX", "band × (1 - level)", $"{Figure.Of(band)} × (1 - {Figure.Of(levelPercent / 100)})", $"{Figure.Of(room, 1)} mL", "geometry")
            .Input("Comes back", $"{Figure.Of(displaced.Milliliters, 1)} mL")
            .Conclude(verdict switch
            {
                RoomVerdict.FitsUnderMax => $"Fits under MAX: {Figure.Of(after, 0)} % after. Do not fill now.",
                RoomVerdict.OverMaxUnderBrim => $"Over MAX but under the brim: {Figure.Of(after, 0)} % after. Watch it, and do not fill now.",
                _ => $"Draw off {Figure.Of(draw, 1)} mL first.",
            })
            .WouldChange("A level topped up on worn pads leaves no room.").Done();
        return new(Volume.FromMilliliters(room), after, Volume.FromMilliliters(draw), verdict, reasons);
    }
}
