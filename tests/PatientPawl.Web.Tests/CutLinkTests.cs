using System.Globalization;
using System.Net;
using System.Net.Sockets;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;
using PatientPawl.StandIns.Car;
using PatientPawl.StandIns.Link;
using PatientPawl.Web.Electric;

namespace PatientPawl.Web.Tests;

/// <summary>The link cut after so many bytes, in either direction, somewhere in a whole service in and out: what the tool believes is what the car did.</summary>
public sealed class CutLinkTests
{
    // Every one by hand with PAWL_CUTS=1; the usual run takes every so-manieth.
    private static readonly int Every = int.Parse(Environment.GetEnvironmentVariable("PAWL_CUTS") ?? "37", CultureInfo.InvariantCulture);

    [Theory]
    [InlineData(true)]
    [InlineData(false)]
    public async Task Wherever_it_is_cut_the_state_is_right_and_nothing_is_started_twice(bool towardsCar)
    {
        var bytes = await Whole(towardsCar, null);
        bytes.ShouldBeGreaterThan(100);
        for (var cut = 1; cut <= bytes; cut += Every) await Whole(towardsCar, cut);
    }

    /// <summary>Service in, pads renewed, service out, through a wire that is cut once; how many bytes went that way.</summary>
    private static async Task<int> Whole(bool towardsCar, int? cutAfter)
    {
        var car = new StandInCar();
        car.Charge(true);
        await using var server = new CarServer(car, new(Speed: 100, Announce: false), TimeProvider.System);
        server.Start();
        using var wire = new Wire(server.Port, towardsCar, cutAfter);
        IScanTool? tool = null;
        var starts = 0;
        async Task<IScanTool> Tool() => tool ??= await DoipScanTool.ConnectAsync("127.0.0.1", wire.Port, e => starts += e is { Sent: true } && e.Words.StartsWith("Start", StringComparison.Ordinal) ? 1 : 0, TimeProvider.System, default);
        async Task<RoutineAnswer?> Do(Routine routine)
        {
            var started = false;
            for (var tries = 0; tries < 200; tries++)
            {
                try
                {
                    var t = await Tool();
                    if (!started)
                    {
                        started = true;
                        (await t.StartAsync(routine, default)).Refused.ShouldBeNull();
                    }

                    var result = await t.ResultAsync(routine, default);
                    if (result.Refused is not null) return null;
                    if (result.Status != RoutineStatus.Running) return result;
                }
                catch (LinkLostException)
                {
                    if (tool is not null) await tool.DisposeAsync();
                    tool = null;
                }

                await Task.Delay(10);
            }

            throw new TimeoutException();
        }

        var into = await Do(Routine.ServiceIn);
        var state = server.With(c => c.Unit.State);
        // Nobody knows only where the car never heard of it; then it stands as it stood.
        if (into is null) state.ShouldBe(UnitState.Released, $"cut after {cutAfter}");
        else
        {
            (into.Status, state).ShouldBe((RoutineStatus.Done, UnitState.Service), $"cut after {cutAfter}");
            server.With(c =>
            {
                foreach (var side in new[] { 0, 1 }) c.Put(side, new(true, 2e-3, null, true));
                return 0;
            });
            var close = await Do(Routine.ServiceOut);
            server.With(c => c.Unit.State).ShouldBe(close is null ? UnitState.Service : UnitState.Released, $"cut after {cutAfter}");
        }

        starts.ShouldBeLessThanOrEqualTo(2);
        if (tool is not null) await tool.DisposeAsync();
        return wire.Bytes;
    }

    /// <summary>A wire between tool and car that goes dead once, after so many bytes one way.</summary>
    private sealed class Wire : IDisposable
    {
        private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
        private readonly int _car;
        private readonly bool _towardsCar;
        private int? _cutAfter;

        public Wire(int car, bool towardsCar, int? cutAfter)
        {
            (_car, _towardsCar, _cutAfter) = (car, towardsCar, cutAfter);
            _listener.Start();
            _ = Task.Run(Accept);
        }

        public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;
        public int Bytes { get; private set; }

        private async Task Accept()
        {
            try
            {
                while (true)
                {
                    var tool = await _listener.AcceptTcpClientAsync();
                    var car = new TcpClient { NoDelay = true };
                    await car.ConnectAsync(IPAddress.Loopback, _car);
                    tool.NoDelay = true;
                    _ = Task.Run(() => Pump(tool, car, _towardsCar));
                    _ = Task.Run(() => Pump(car, tool, !_towardsCar));
                }
            }
            catch (Exception e) when (e is SocketException or ObjectDisposedException)
            {
                // The wire is rolled up.
            }
        }

        private async Task Pump(TcpClient from, TcpClient to, bool counted)
        {
            try
            {
                var one = new byte[1];
                var (source, sink) = (from.GetStream(), to.GetStream());
                while (await source.ReadAsync(one) > 0)
                {
                    if (counted)
                    {
                        Bytes++;
                        if (_cutAfter is { } cut && Bytes > cut)
                        {
                            _cutAfter = null;
                            break;
                        }
                    }

                    await sink.WriteAsync(one);
                }
            }
            catch (Exception e) when (e is IOException or ObjectDisposedException or InvalidOperationException)
            {
                // The other end has gone.
            }

            from.Close();
            to.Close();
        }

        public void Dispose() => _listener.Dispose();
    }
}
