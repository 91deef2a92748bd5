using PatientPawl.Core.Reasoning;
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
    /// The lengthening that brings the middle of the lining to <paramref name="radius"/>, exactly: with T = r² - Rs², A = 2 Ra², B = 2 Rs Ra,
    /// d = atan(A / B) + asin((T - A) / root(A² + B²)) and e = 2 (Ra + Rb) sin d.
    /// </summary>
    public Length LengtheningFor(Length radius)
    {
        double rs = ShoeRadius.Millimeters, ra = AnchorDistance.Millimeters, a = 2 * ra * ra, b = 2 * rs * ra;
        var t = radius.Millimeters * radius.Millimeters - rs * rs;
        var d = Math.Atan2(a, b) + Math.Asin(Math.Clamp((t - a) / Math.Sqrt(a * a + b * b), -1, 1));
        return Length.FromMillimeters(2 * (ra + AdjusterDistance.Millimeters) * Math.Sin(d));
    }

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

/// <summary>The gap at one place of the lining.</summary>
/// <param name="Theta">From the shoe's middle, positive toward the adjuster.</param>
/// <param name="Gap">Radial gap there; negative where it rubs.</param>
public sealed record GapPoint(Angle Theta, Length Gap);

/// <summary>The gap along a lining.</summary>
/// <param name="Points">From the anchor end to the adjuster end.</param>
/// <param name="Least">The least gap.</param>
/// <param name="LeastAt">Where.</param>
/// <param name="Greatest">The greatest gap.</param>
/// <param name="Contact">Half the arc that would touch within 0.05 mm once the middle does; null when the ends touch first.</param>
/// <param name="ContactShare">The same as a share of the lining, 0 to 1.</param>
/// <param name="Says">The contact in words.</param>
/// <param name="Reasons">Why.</param>
public sealed record GapVerdict(IReadOnlyList<GapPoint> Points, Length Least, Angle LeastAt, Length Greatest, Angle? Contact, double ContactShare, string Says, Reasons Reasons) : IReasoned;

/// <summary>Works out the gap between lining and drum all along the lining.</summary>
[Engine]
public static class GapProfile
{
    /// <summary>What counts as touching: 0.05 mm.</summary>
    public static Length Touching { get; } = Length.FromMillimeters(0.05);

    /// <summary>Usual half-angle of a parking shoe's lining: 60 degrees (from memory), when none is given.</summary>
    public static Angle DefaultHalfLining { get; } = Angle.FromDegrees(60);

    /// <summary>
    /// Gap(theta) = drum radius - r(theta), with the shoe rotated exactly about its anchor. <paramref name="lengthened"/> is how far the
    /// adjuster stands out beyond the place where the shoes lie on one circle.
    /// </summary>
    /// <param name="geometry">The shoes at rest.</param>
    /// <param name="drum">Drum diameter, 50 to 500 mm.</param>
    /// <param name="lengthened">Lengthening of the adjuster, -20 to 20 mm.</param>
    /// <param name="halfLining">Half the lining's angle, 10 to 85 degrees; null uses 60.</param>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static GapVerdict Compute(ShoeGeometry geometry, Length drum, Length lengthened, Angle? halfLining)
    {
        ArgumentNullException.ThrowIfNull(geometry);
        var half = halfLining ?? DefaultHalfLining;
        new Checks().Millimetres("drumDiameterMm", drum, 50, 500).Millimetres("lengthenedMm", lengthened, -20, 20).Range("halfLiningDeg", half.Degrees, 10, 85, "degrees")
            .Millimetres("anchorDistanceMm", geometry.AnchorDistance, 20, 250).Millimetres("adjusterDistanceMm", geometry.AdjusterDistance, 20, 250).Millimetres("shoeRadiusMm", geometry.ShoeRadius, 25, 250).ThrowIfAny();
        return Compute(geometry, drum, lengthened, half, halfLining is null, contactKnown: true);
    }

    /// <summary>
    /// The profile after some clicks outward from where the shoes stand now. The linings' own arc is used when it is known; else the shoes
    /// are taken as lying on one circle now, and nothing is said of contact.
    /// </summary>
    /// <exception cref="InputException">A figure that cannot be.</exception>
    public static GapVerdict AfterClicks(Length drum, ShoeSet shoes, int clicks)
    {
        ArgumentNullException.ThrowIfNull(shoes);
        new Checks().Range("clicks", clicks, -500, 500, "").Millimetres("drumDiameterMm", drum, 50, 500).Millimetres("overShoesMm", shoes.OverShoes, 50, 500).Millimetres("arcDiameterMm", shoes.ArcDiameter, 50, 500).ThrowIfAny();
        var geometry = new ShoeGeometry((shoes.ArcDiameter ?? shoes.OverShoes) / 2, shoes.AnchorDistance, shoes.AdjusterDistance);
        var lengthened = geometry.LengtheningFor(shoes.OverShoes / 2) + shoes.Lengthening() * clicks;
        return Compute(geometry, drum, lengthened, shoes.HalfLining ?? DefaultHalfLining, shoes.HalfLining is null, shoes.ArcDiameter is not null);
    }

    private static GapVerdict Compute(ShoeGeometry geometry, Length drum, Length lengthened, Angle half, bool halfIsDefault, bool contactKnown)
    {
        const int steps = 48;
        var points = new GapPoint[steps + 1];
        for (var i = 0; i <= steps; i++)
        {
            var theta = Angle.FromDegrees(half.Degrees * (2.0 * i / steps - 1));
            points[i] = new(theta, Length.FromMillimeters(drum.Millimeters / 2 - geometry.Radius(theta, lengthened).Millimeters));
        }

        var least = points.MinBy(p => p.Gap.Millimeters)!;
        var contact = contactKnown ? ShoeGeometry.ContactHalfAngle(geometry.ShoeRadius, drum / 2, Touching, half) : null;
        var share = contact is { } c ? c.Degrees / half.Degrees : 0;
        var says = !contactKnown ? "The linings' own arc is not known: nothing is said of contact."
            : contact is null ? "The drum is smaller than the shoe's arc: its ends touch first."
            : share > 0.999 ? "The whole lining touches."
            : $"Once its middle touches, {Figure.Of(share * 100, 0)} % of the lining does: {(share < 0.6 ? "a weak parking brake until the shoes bed" : "it beds soon")}.";
        var trail = new Trail("GapProfile.Compute")
            .Input("Drum radius", $"{Figure.Of(drum.Millimeters / 2)} mm").Input("Shoe radius", $"{Figure.Of(geometry.ShoeRadius.Millimeters)} mm").Input("Adjuster lengthened", $"{Figure.Of(lengthened.Millimeters, 4)} mm")
            .Formula("Gap", "Rd - r(theta), r exact about the anchor", $"least {Figure.Of(least.Gap.Millimeters, 4)} at {Figure.Of(least.Theta.Degrees, 0)}°", $"{Figure.Of(least.Gap.Millimeters, 4)} mm", "geometry");
        if (contact is { } k)
            trail.Formula("Contact", "arccos(1 - t / c)", $"arccos(1 - {Figure.Of(Touching.Millimeters)} / {Figure.Of(drum.Millimeters / 2 - geometry.ShoeRadius.Millimeters)})", $"±{Figure.Of(k.Degrees, 1)}° of ±{Figure.Of(half.Degrees, 0)}°", "geometry");
        if (halfIsDefault) trail.Default("Half the lining's angle", "60°", "practice-shoe-lining");
        return new(points, least.Gap, least.Theta, points.Max(p => p.Gap), contact, share, says, trail.Conclude(says).WouldChange("New shoes ground to the drum, or a drum nearer its nominal size.").Done());
    }
}
