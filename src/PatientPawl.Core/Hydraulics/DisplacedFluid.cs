using UnitsNet;

namespace PatientPawl.Core.Hydraulics;

/// <summary>Fluid that pistons push back to the reservoir, or take from it.</summary>
internal static class DisplacedFluid
{
    /// <summary>Sum over pistons of (pi/4) d² × travel.</summary>
    public static Volume Volume(IEnumerable<Length> bores, Length travel) =>
        UnitsNet.Volume.FromMilliliters(bores.Sum(b => b.Millimeters * b.Millimeters) * Math.PI / 4 * travel.Millimeters / 1000);

    /// <summary>Millilitres, with US fluid ounces for those who think in them (1 US fl oz = 29.5735 mL).</summary>
    public static string Words(Volume v) => $"{Figure.Of(v.Milliliters, 1)} mL ({Figure.Of(v.UsOunces, 1)} US fl oz)";
}
