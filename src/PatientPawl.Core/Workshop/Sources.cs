namespace PatientPawl.Core.Workshop;

/// <summary>How far a source can be leaned on.</summary>
public enum SourceKind
{
    /// <summary>A published standard or regulation.</summary>
    Published,
    /// <summary>What the trade does; no publication stands behind it.</summary>
    CommonPractice,
    /// <summary>Plain geometry or arithmetic that anyone can redo.</summary>
    Arithmetic,
    /// <summary>A figure this product assumes when the spec sheet is silent.</summary>
    Default,
}

/// <summary>Where a figure or a rule comes from.</summary>
/// <param name="Id">The id that reasoning lines carry.</param>
/// <param name="Kind">How far it can be leaned on.</param>
/// <param name="Title">The source's name.</param>
/// <param name="Says">What is taken from it.</param>
/// <param name="FromMemory">True when the value was quoted from memory and wants checking against the text itself.</param>
public sealed record Source(string Id, SourceKind Kind, string Title, string Says, bool FromMemory);

/// <summary>Every source the engines lean on.</summary>
public static class Sources
{
    /// <summary>All sources, published ones first.</summary>
    public static IReadOnlyList<Source> All { get; } =
    [
        new("nist-sp-811", SourceKind.Published, "NIST SP 811, Guide for the Use of the SI", "1 lbf ft = 1.355 817 948 N m, 1 lbf in = 0.112 984 829 N m, 1 kgf m = 9.806 65 N m.", true),
        new("iso-898-1", SourceKind.Published, "ISO 898-1, mechanical properties of fasteners", "Stress area (pi/4)(d - 0.938194 P)^2 and the proof stresses of the property classes.", true),
        new("iso-6789-1", SourceKind.Published, "ISO 6789-1:2017, hand torque tools", "Permissible deviation 4 % over 10 N m and 6 % up to 10 N m of the tool's maximum; bending-beam 6 %; usable from 20 % of the maximum.", true),
        new("gum", SourceKind.Published, "JCGM 100:2008, Guide to the expression of uncertainty in measurement", "Rectangular limits divide by the root of 3, resolution by twice that; parts add in quadrature.", true),
        new("iso-14253-1", SourceKind.Published, "ISO 14253-1:2017 and JCGM 106:2012", "One-sided decision at 95 %: guard band 1.645 u.", true),
        new("cfr-565", SourceKind.Published, "49 CFR 565.15, vehicle identification number", "Transliteration, weights and the check digit modulo 11. In force in North America and some other markets only.", true),
        new("fmvss-116", SourceKind.Published, "FMVSS 116, 49 CFR 571.116, brake fluids", "Least equilibrium reflux boiling points, dry and wet: DOT 3 205 and 140, DOT 4 230 and 155, DOT 5 and 5.1 260 and 180 degrees C.", true),
        new("evidence-table", SourceKind.CommonPractice, "The evidence table of the parking-brake architectures", "Which observation each architecture needs and which rule it out.", false),
        new("practice-direction", SourceKind.CommonPractice, "Turning direction", "With no data: clockwise, facing the piston, proved in the first half turn by the face moving inward.", false),
        new("practice-push", SourceKind.CommonPractice, "Motor calipers", "A notched face on a motor caliper still pushes straight once the spindle is back.", false),
        new("practice-log", SourceKind.CommonPractice, "What a log of the retraction shows", "Coming out by 0.2 mm, less than a quarter of the lead over a turn, three readings alike, springing back by 0.5 mm, twice the effort of the other side, home within 0.3 mm.", false),
        new("practice-boot", SourceKind.CommonPractice, "The piston's boot", "Free all round; torn or wet behind condemns the caliper; one that bulges holds air.", false),
        new("practice-opposed", SourceKind.CommonPractice, "Opposed pistons", "Opposite pistons go together, the furthest out first, and none may creep out.", false),
        new("practice-back-off", SourceKind.Default, "Most back-off of a slotted piston", "30 degrees where the house rule allows a back-off and names no limit.", false),
        new("practice-reservoir", SourceKind.Default, "Wall of a reservoir", "2.5 mm, taken off a reservoir measured from outside.", true),
        new("practice-battery", SourceKind.Default, "Battery behind the ignition", "45 A h and 0.03 ohm; 12.0 V at rest is a fifth of its charge, 12.7 V all of it; the ignition takes 8 A; more than 12.9 V is not at rest.", true),
        new("practice-trace", SourceKind.CommonPractice, "Current of a brake motor", "Inrush, free run, knee, end: free over 3.5 A is heavy, sides 1.4 times, 0.3 s, a fifth of force or three tenths of rise apart differ; efficiency 0.30 when nobody gives it.", true),
        new("motor-equations", SourceKind.Arithmetic, "Equations of a DC motor and a power screw", "V = i R + Ke w, torque Kt i, force torque × eta × 2 pi G/lead.", false),
        new("practice-fluid", SourceKind.CommonPractice, "Brake fluid in use", "Glycol mixes count as their lowest grade; silicone never mixes; water under 1.5 % is good, from 3 % it is changed.", false),
        new("practice-strokes", SourceKind.CommonPractice, "Pumping up", "Strokes by volume; still soft after twice as many and five more is air, a leak, or a piston too far back.", false),
        new("practice-bleeding", SourceKind.CommonPractice, "Bleeding", "What opens a circuit; two clear draws end it; 15 mL a draw when none was measured.", false),
        new("practice-leaks", SourceKind.CommonPractice, "Leak check", "Pedal held hard for 30 seconds without sinking; dry after washing down and waiting.", false),
        new("practice-margin", SourceKind.Default, "Running margin", "1.0 mm of travel over what the new parts need, when the rule does not say.", false),
        new("practice-minimum-lining", SourceKind.Default, "Least pad lining", "2.0 mm of lining when the sheet does not say; common practice is 2 to 3 mm.", false),
        new("practice-roles", SourceKind.CommonPractice, "Usual torques by role", "Cars to light vans: slide pins 20 to 60 N m, bracket 45 to 220, rotor screw 5 to 15, actuator screws 6 to 12, banjo 20 to 45, bleed screw 6 to 15, wheel 80 to 230.", false),
        new("practice-friction", SourceKind.CommonPractice, "Nut factor", "T = K d F with K 0.20 dry and 0.15 lubricated.", false),
        new("practice-wrench-window", SourceKind.CommonPractice, "Wrench window", "The setting lies between 20 and 100 % of the wrench's maximum.", false),
        new("bed-in-heat", SourceKind.Arithmetic, "Heat of a stop", "E = m (v1² - v2²) / 2, shared between the axles and two rotors of grey iron, 460 J/(kg K) from memory; cooling by an exponential between stops.", true),
        new("practice-bed-in", SourceKind.CommonPractice, "Bed-in series", "Three to six firm stops from about 50 km/h, never to a standstill; usually 150 to 300 degrees C. Defaults of ours: rear share 30 %, cooling time constant 300 s, 3 m/s² in a stop, five minutes of driving to cool.", true),
        new("grade-20", SourceKind.Published, "FMVSS 135 S7.12 and UN R13-H, parking brake", "A laden car is held on a 20 % grade, both ways, for 5 minutes.", true),
        new("grade-18", SourceKind.Published, "UN R13, parking brake", "A laden minibus or van is held on an 18 % grade.", true),
        new("periodic-16", SourceKind.Published, "Directive 2014/45/EU, parking brake", "At a periodic inspection both wheels together brake with at least 16 % of the weight of the maximum authorised mass.", true),
        new("practice-roller", SourceKind.Default, "Roller bench", "It reads within 3 % of its reading; left and right differ by at most 30 % where no local rule is given.", true),
        new("practice-drag", SourceKind.Default, "A side that drags", "Its rotor is 20 K and a quarter of its rise hotter than the other after a drive. Our own assumption.", false),
        new("geometry", SourceKind.Arithmetic, "Geometry", "Lever arms, circle areas and the screw's lead.", false),
        new("practice-out-of-round", SourceKind.Default, "Out of round", "0.15 mm when the sheet is silent.", true),
        new("practice-clearance", SourceKind.Default, "Shoe clearance", "0.3 to 0.6 mm of diameter when the sheet is silent.", true),
        new("practice-lock", SourceKind.CommonPractice, "Lock and back off", "From lock, five to eight clicks back; one click of elastic preload is a flagged default.", false),
        new("practice-shoe-lining", SourceKind.Default, "Shoe lining", "Least lining 1.0 mm and a half-angle of 60 degrees when the sheet is silent.", true),
        new("practice-ridge", SourceKind.Default, "Ridge of a worn drum", "A margin of 0.2 mm of diameter over the ridge before the rotor comes off.", true),
        new("practice-machining", SourceKind.Default, "Machining", "A drum is cut to 0.75 mm under its discard diameter at most, a rotor to 0.4 mm over its minimum; one school never machines a rotor that shook.", true),
        new("practice-rotor", SourceKind.Default, "Rotor limits", "Thickness variation 0.015 mm and lateral runout 0.08 mm when the sheet is silent; what condemns a rotor.", true),
        new("practice-pads", SourceKind.CommonPractice, "Pad wear", "Patterns of wear, their causes and checks; the wear indicator on the inner pad at its leading end.", false),
        new("practice-wear", SourceKind.Default, "Pad wear with distance", "0.10 mm a 1000 km, half as much either way, when there is no history.", false),
        new("student-t", SourceKind.Arithmetic, "Least squares, Student's t and Fieller's theorem", "The line through the readings, its standard error, and the band of the distance at which it meets a limit.", false),
        new("practice-due", SourceKind.Default, "When things come due", "Fluid is tested a year later, changed half a year after 1.5 % water and at once from 3 %; single-use fasteners are ordered a fortnight ahead.", true),
        new("practice-driven", SourceKind.Default, "How far a vehicle is driven", "40 km a day where two visits at least 14 days apart do not tell. Our own assumption.", false),
        new("practice-instruments", SourceKind.Default, "Workshop instruments", "Resolution and permissible error of ordinary instruments, from memory; the instrument's own certificate outranks it.", true),
        new("practice-night", SourceKind.CommonPractice, "Left overnight", "Either assembled with the pedal proved, or on stands with the brake in service or released; never lowered with a caliper off.", false),
        new("practice-routes", SourceKind.CommonPractice, "Routes into the service position", "A tool closes the brake and reads codes; the car's own sequence needs none; a spindle by hand is the last resort; a battery straight to the motor is never offered.", false),
        new("practice-people", SourceKind.Arithmetic, "Two technicians", "List scheduling with critical-path priority over two people, single tools and one person at a corner.", false),
        new("practice-steps", SourceKind.CommonPractice, "The order of the work", "Why each step stands where it does; minutes are estimates to be edited.", false),
        new("practice-alignment", SourceKind.Default, "How exactly a hand turns a piston", "About 2 degrees either way; the pad's pin has more play than that. Our own assumption.", false),
        new("stamping", SourceKind.CommonPractice, "Stamped on the part", "Read from the part itself; where stamping and sheet differ the stricter one is used.", false),
        new("typed", SourceKind.CommonPractice, "Entered by hand", "A figure that a person typed, with the place it was read from.", false),
        new("spec-sheet", SourceKind.CommonPractice, "The job's spec sheet", "The maker's figures as entered in this workshop; the maker's own current data outranks it.", false),
    ];

    /// <summary>The source with this id.</summary>
    /// <exception cref="KeyNotFoundException">No such source.</exception>
    public static Source Get(string id) => All.FirstOrDefault(s => s.Id == id) ?? throw new KeyNotFoundException($"No source '{id}'.");
}
