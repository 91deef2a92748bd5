using System.Collections.Concurrent;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Jobs;
using PatientPawl.Core.Planning;
using PatientPawl.Data;
using PatientPawl.StandIns;
using UnitsNet;

namespace PatientPawl.Web.Electric;

/// <summary>What the stand-in tool is asked, on a battery that can be chosen.</summary>
public sealed record AskTool(ToolFunction Function, ElectricPotential? Battery);

/// <summary>The stand-in scan tools, one a job.</summary>
public sealed class ScanTools
{
    private readonly ConcurrentDictionary<Guid, StandInScanTool> _tools = new();

    /// <summary>The tool of a job.</summary>
    public StandInScanTool For(Guid job) => _tools.GetOrAdd(job, _ => new());
}

internal static class ElectricEndpoints
{
    public static void MapElectric(this RouteGroupBuilder api)
    {
        var jobs = api.MapGroup("/jobs/{id:guid}").RequireAuthorization();
        jobs.MapGet("/routes", (Guid id, EventStore events) =>
        {
            var state = events.State(id);
            return TypedResults.Ok(ServiceRoutes.Rank(state.Setup, state.Opened?.Sheet));
        });
        jobs.MapPost("/scan-tool", (Guid id, AskTool ask, EventStore events, ScanTools tools) =>
        {
            var (state, tool) = (events.State(id), tools.For(id));
            // The stand-in sees the car as the job knows it; the battery is chosen, or as last read, or a rested one.
            tool.Put(new(ask.Battery ?? ElectricPotential.FromVolts(state.BatteryVolts ?? 12.6), state.Opened?.Sheet.Electric?.BatteryFloor ?? ElectricPotential.FromVolts(12.0), BothOn(state.Car), state.Car.Get(Car.Brake) == ParkingBrake.Service));
            return TypedResults.Ok(((IScanTool)tool).Ask(ask.Function));
        });
    }

    private static bool BothOn(CarState car) => Core.Sides.Both.All(s => car.Get(Corner.Caliper, s) == Caliper.On && car.Get(Corner.Pads, s) != PadState.None);
}
