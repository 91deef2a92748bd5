using UnitsNet;

namespace PatientPawl.Core.Shoes;

/// <summary>Geometry of expanding shoes that pivot on an anchor, with the adjuster opposite.</summary>
/// <param name="ShoeRadius">Rs: radius of the shoes at rest.</param>
/// <param name="AnchorDistance">Ra.</param>
/// <param name="AdjusterDistance">Rb.</param>
public sealed record ShoeGeometry(Length ShoeRadius, Length AnchorDistance, Length AdjusterDistance)
{
    /// <summary>
    /// Distance of the lining from the axle's centre, exactly, with the adjuster lengthened by <paramref name="e"/>: sin d = e / (2 (Ra + Rb));
    /// r² = Rs² + 2 Ra² (1 - cos d) + 2 Rs Ra (cos theta sin d + sin theta (1 - cos d)). Theta counts from the shoe's middle, positive toward the adjuster.
    /// </summary>
    public Length Radius(Angle theta, Length e)
    {
        double rs = ShoeRadius.Millimeters, ra = AnchorDistance.Millimeters;
        var sin = e.Millimeters / (2 * (ra + AdjusterDistance.Millimeters));
        var cos = Math.Sqrt(1 - sin * sin);
        return Length.FromMillimeters(Math.Sqrt(rs * rs + 2 * ra * ra * (1 - cos) + 2 * rs * ra * (Math.Cos(theta.Radians) * sin + Math.Sin(theta.Radians) * (1 - cos))));
    }

    /// <summary>The first-order form of the same: Rs + e Ra cos theta / (2 (Ra + Rb)).</summary>
    public Length FirstOrder(Angle theta, Length e) =>
        Length.FromMillimeters(ShoeRadius.Millimeters + e.Millimeters * AnchorDistance.Millimeters / (2 * (AnchorDistance.Millimeters + AdjusterDistance.Millimeters)) * Math.Cos(theta.Radians));

    /// <summary>
    /// Half the arc on which a lining of radius <paramref name="shoe"/> lies within <paramref name="within"/> of a drum of radius
    /// <paramref name="drum"/> once its middle touches: arccos(1 - t / c), clamped to <paramref name="halfLining"/>. With equal radii the whole
    /// lining touches; a drum smaller than the shoe touches at the ends first and gives null.
    /// </summary>
    public static Angle? ContactHalfAngle(Length shoe, Length drum, Length within, Angle halfLining)
    {
        var c = drum.Millimeters - shoe.Millimeters;
        if (c < 0) return null;
        if (c == 0 || within.Millimeters >= 2 * c) return halfLining;
        var angle = Angle.FromRadians(Math.Acos(1 - within.Millimeters / c));
        return angle < halfLining ? angle : halfLining;
    }
}
