namespace PatientPawl.Core.Planning;

/// <summary>The usual cautions, in our own words.</summary>
public static class Cautions
{
    /// <summary>Work under the car.</summary>
    public static readonly Caution Stands = new("stands", "Stands under sound jacking points, never the jack alone. Rock the car before you reach under it.", true);
    /// <summary>Friction dust.</summary>
    public static readonly Caution Dust = new("dust", "Friction dust: never blown off, never dry-brushed. Wet it or vacuum it.", false);
    /// <summary>Electric actuators.</summary>
    public static readonly Caution Actuators = new("actuators", "The actuators can move without warning and crush fingers. Hands clear of both calipers.", true);
    /// <summary>Self-pressurising brakes.</summary>
    public static readonly Caution SelfPressurising = new("self-pressurising", "Some hybrid and electric cars pressurise the brakes by themselves when a door opens or a key comes near. The maker's disable procedure comes first, or the job stops.", true);
    /// <summary>Springs.</summary>
    public static readonly Caution Springs = new("springs", "Springs under load. Eye protection on.", true);
    /// <summary>Hot parts.</summary>
    public static readonly Caution Hot = new("hot-parts", "Rotors and calipers may be hot. Try the back of a hand near them first.", true);
    /// <summary>Brake fluid.</summary>
    public static readonly Caution Fluid = new("fluid", "Brake fluid strips paint and hurts eyes. Rag round the neck, water at hand.", false);
    /// <summary>Eye protection.</summary>
    public static readonly Caution Eyes = new("eyes", "Eye protection for wire wheels and hammering.", false);

    /// <summary>All of them.</summary>
    public static IReadOnlyList<Caution> All { get; } = [Stands, Dust, Actuators, SelfPressurising, Springs, Hot, Fluid, Eyes];
}
