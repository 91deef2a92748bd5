namespace PatientPawl.StandIns.Car;

/// <summary>
/// One motor with its spindle, and the piston as a body of its own on the same axis. Positive is towards clamping; 0 is the back stop. Only
/// <see cref="Circuit"/> moves it.
/// </summary>
public sealed class Drive(DriveFigures figures)
{
    // The back stop is a stiff spring, so that the current rises against it as it does against a real one.
    private const double StopStiffness = 1e8;

    /// <summary>Its figures; a fault changes them.</summary>
    public DriveFigures Figures { get; set; } = figures;

    /// <summary>Which way it is fed: 1 applies, -1 releases, 0 is off.</summary>
    public int Fed { get; set; }

    /// <summary>True where its circuit is interrupted: unplugged, or its fuse blown.</summary>
    public bool Open { get; set; }

    /// <summary>Current, A; positive applies.</summary>
    public double Amps { get; private set; }

    /// <summary>Speed of the motor, rad/s; positive applies.</summary>
    public double Speed { get; private set; }

    /// <summary>Where the nut stands, m from its back stop.</summary>
    public double Nut { get; set; }

    /// <summary>Where the piston's inner face stands, m.</summary>
    public double Piston { get; set; }

    /// <summary>Where the piston meets pads that meet the rotor, m; infinite where nothing is there to meet.</summary>
    public double Contact { get; set; } = double.PositiveInfinity;

    /// <summary>Speed of the nut, m/s.</summary>
    public double NutSpeed => Speed * Figures.MetresPerRadian;

    /// <summary>Clamping force, N.</summary>
    public double Force => Nut > Contact ? Figures.Stiffness * (Nut - Contact) : 0;

    /// <summary>Resistance from the battery's posts through the motor, ohm.</summary>
    internal double Ohm => Figures.ResistanceOhm + Figures.HarnessOhm;

    internal bool Conducts => Fed != 0 && !Open;

    internal void Cut() => Amps = 0;

    /// <summary>One step of the mechanics, with the current of its end.</summary>
    internal void Step(double amps, double dt)
    {
        Amps = amps;
        var (f, r) = (Figures, Figures.MetresPerRadian);
        // What resists turning forward, and what resists turning back: the train loses on both ways, and locks itself.
        var drag = Nut >= Piston && Piston < Contact ? f.DragNewton : 0;
        var stop = Nut < 0 ? -Nut * StopStiffness : 0;
        var force = Force;
        var forward = f.FrictionNm + (force + drag) * r / f.Efficiency + stop * r * (1 / f.Efficiency - 2);
        var back = f.FrictionNm + force * r * (1 / f.Efficiency - 2) + stop * r / f.Efficiency;
        var torque = f.TorqueConstant * amps;
        var before = Speed;
        if (before > 0) Speed += (torque - forward) / f.Inertia * dt;
        else if (before < 0) Speed += (torque + back) / f.Inertia * dt;
        else if (torque > forward) Speed = (torque - forward) / f.Inertia * dt;
        else if (torque < -back) Speed = (torque + back) / f.Inertia * dt;
        // Friction stops it; it never turns it round.
        if (before * Speed < 0) Speed = 0;
        var was = Nut;
        Nut += (before + Speed) / 2 * r * dt;
        if (Nut > f.RangeMetres) (Nut, Speed) = (f.RangeMetres, 0);
        if (Nut > was && Nut > Piston) Piston = Nut;
        // A piston that is clamped comes back with its pads, as far as they stand.
        else if (Piston > Contact && Piston > Nut) Piston = Math.Max(Nut, Contact);
    }
}

/// <summary>The motors on one battery: their currents are solved together, because each lowers the volts of the other.</summary>
public static class Circuit
{
    /// <summary>One step of every drive.</summary>
    /// <param name="drives">One motor, or two.</param>
    /// <param name="openVolts">The battery's voltage with nothing drawn.</param>
    /// <param name="internalOhm">Its internal resistance.</param>
    /// <param name="otherAmps">What else is drawn.</param>
    /// <param name="dt">The step, s.</param>
    /// <returns>The voltage at the posts.</returns>
    public static double Step(ReadOnlySpan<Drive> drives, double openVolts, double internalOhm, double otherAmps, double dt)
    {
        // Backward Euler of L di/dt = V - i R - Ke w in the direction each is fed: it stays right as L goes to 0.
        Span<double> own = stackalloc double[drives.Length], driving = stackalloc double[drives.Length];
        double a = 0, b = 0;
        for (var k = 0; k < drives.Length; k++)
        {
            var d = drives[k];
            if (!d.Conducts) continue;
            var overTime = d.Figures.InductanceHenry / dt;
            own[k] = d.Ohm + overTime;
            driving[k] = overTime * d.Amps * d.Fed - d.Figures.TorqueConstant * d.Speed * d.Fed;
            a += driving[k] / own[k];
            b += 1 / own[k];
        }

        // V = OCV - R_int (other + sum of (V + driving) / own), for V.
        var volts = (openVolts - internalOhm * (otherAmps + a)) / (1 + internalOhm * b);
        for (var k = 0; k < drives.Length; k++)
        {
            var d = drives[k];
            d.Step(d.Conducts ? d.Fed * (volts + driving[k]) / own[k] : 0, dt);
        }

        return volts;
    }
}

/// <summary>The battery's charge and voltage.</summary>
public sealed class Battery(BatteryFigures figures)
{
    // At rest 12.0 V is a fifth of the charge and 12.7 V is all of it, with a straight line between and beyond.
    private const double LowVolts = 12.0, LowShare = 0.2, FullVolts = 12.7;

    /// <summary>Its figures; a fault changes them.</summary>
    public BatteryFigures Figures { get; set; } = figures;

    /// <summary>The share that shows 12.6 V at rest.</summary>
    public const double Usual = LowShare + (12.6 - LowVolts) / (FullVolts - LowVolts) * (1 - LowShare);

    /// <summary>How full, 0 to 1.</summary>
    public double Share { get; set; } = Usual;

    /// <summary>True with a charger on it that works.</summary>
    public bool Charger { get; set; }

    /// <summary>Voltage with nothing drawn.</summary>
    public double OpenVolts => Charger ? Figures.ChargerVolts : LowVolts + (Share - LowShare) / (1 - LowShare) * (FullVolts - LowVolts);

    /// <summary>Takes charge out for a time.</summary>
    public void Draw(double amps, double seconds)
    {
        if (!Charger) Share = Math.Max(0, Share - amps * seconds / 3600 / Figures.CapacityAh);
    }
}
