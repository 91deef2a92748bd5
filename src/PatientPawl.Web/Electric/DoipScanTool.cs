using System.Buffers.Binary;
using System.Net.Sockets;
using System.Threading.Channels;
using PatientPawl.Core.Electric;
using PatientPawl.Core.Electric.Link;

namespace PatientPawl.Web.Electric;

/// <summary>
/// A tester on a DoIP link: an ordinary client of whatever car listens at a host and port. Services of ISO 14229-1 over ISO 13400-2, from memory.
/// </summary>
public sealed class DoipScanTool : IScanTool
{
    private static readonly TimeSpan Connects = TimeSpan.FromSeconds(2), P2 = TimeSpan.FromMilliseconds(1000), P2Star = TimeSpan.FromSeconds(5), PresentEvery = TimeSpan.FromSeconds(2);

    private const string StateWords = "State";

    private readonly TcpClient _client = new() { NoDelay = true };
    private readonly SemaphoreSlim _one = new(1, 1), _writing = new(1, 1);
    private readonly CancellationTokenSource _closing = new();
    private readonly Channel<DoipMessage> _answers = Channel.CreateUnbounded<DoipMessage>(new() { SingleReader = true });
    private readonly Action<Exchange> _log;
    private readonly TimeProvider _clock;
    private Task _reading = Task.CompletedTask, _present = Task.CompletedTask;

    private DoipScanTool(string name, Action<Exchange> log, TimeProvider clock) => (Name, _log, _clock) = (name, log, clock);

    /// <inheritdoc/>
    public string Name { get; }

    /// <summary>Connects, activates the routing and opens the extended session.</summary>
    /// <param name="host">Where the car is.</param>
    /// <param name="port">Its port.</param>
    /// <param name="log">Told of every exchange.</param>
    /// <param name="clock">The clock.</param>
    /// <param name="cancellation">Gives up.</param>
    /// <exception cref="LinkLostException">Nobody there, or it does not let this tester speak.</exception>
    public static async Task<DoipScanTool> ConnectAsync(string host, int port, Action<Exchange> log, TimeProvider clock, CancellationToken cancellation)
    {
        var tool = new DoipScanTool($"{host}:{port}", log, clock);
        try
        {
            await tool.Open(host, port, cancellation);
            return tool;
        }
        catch
        {
            await tool.DisposeAsync();
            throw;
        }
    }

    private async Task Open(string host, int port, CancellationToken cancellation)
    {
        try
        {
            using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
            limit.CancelAfter(Connects);
            await _client.ConnectAsync(host, port, limit.Token);
        }
        catch (Exception e) when (e is SocketException or OperationCanceledException)
        {
            cancellation.ThrowIfCancellationRequested();
            throw new LinkLostException($"No car answers at {Name}.", e);
        }

        _reading = Task.Run(ReadAll, CancellationToken.None);
        var ask = new byte[7];
        BinaryPrimitives.WriteUInt16BigEndian(ask, Doip.TesterAddress);
        await Write(Doip.Frame(DoipType.RoutingActivation, ask), "May I speak?", cancellation);
        var answer = await Next(P2, cancellation);
        var code = answer.Type == DoipType.RoutingActivationAnswer && answer.Payload.Length >= 5 ? answer.Payload[4] : (byte)0xFF;
        Log(false, answer, code == 0x10 ? "You may." : $"You may not: {Activation(code)}.");
        if (code != 0x10) throw new LinkLostException($"The car at {Name} does not let this tool speak: {Activation(code)}.");
        await Ask([(byte)Service.Session, 0x03], "Extended session", cancellation);
        _present = Task.Run(SayPresent, CancellationToken.None);
    }

    /// <inheritdoc/>
    public async Task<LiveState> LiveAsync(CancellationToken cancellation)
    {
        var answer = await Read((int)Identifier.Live, StateWords, cancellation);
        return LiveState.From(answer) ?? throw new LinkLostException("The unit's answer about its state is not understood.");
    }

    /// <inheritdoc/>
    public Task<RoutineAnswer> StartAsync(Routine routine, CancellationToken cancellation) => Control(0x01, "Start", routine, cancellation);

    /// <inheritdoc/>
    public Task<RoutineAnswer> ResultAsync(Routine routine, CancellationToken cancellation) => Control(0x03, "How stands", routine, cancellation);

    /// <inheritdoc/>
    public Task<RoutineAnswer> StopAsync(Routine routine, CancellationToken cancellation) => Control(0x02, "Stop", routine, cancellation);

    /// <inheritdoc/>
    public async Task<IReadOnlyList<string>> CodesAsync(CancellationToken cancellation)
    {
        var answer = await Good([(byte)Service.ReadCodes, 0x02, 0xFF], "Codes", cancellation);
        return [.. Enumerable.Range(0, Math.Max(0, answer.Length - 3) / 4).Select(k => CarLink.Letters((answer[3 + 4 * k] << 8) | answer[4 + 4 * k]))];
    }

    /// <inheritdoc/>
    public Task ClearCodesAsync(CancellationToken cancellation) => Good([(byte)Service.ClearCodes, 0xFF, 0xFF, 0xFF], "Clear codes", cancellation);

    /// <inheritdoc/>
    public async Task<IReadOnlyList<KeptSample>> SamplesAsync(CancellationToken cancellation)
    {
        List<KeptSample> samples = [];
        for (var block = (await LiveAsync(cancellation)).Samples / CarLink.SamplesPerBlock; block > 0 && samples.Count % CarLink.SamplesPerBlock == 0; block--)
        {
            var at = samples.Count / CarLink.SamplesPerBlock;
            var data = await Read((int)Identifier.FirstSamples + at, $"Samples, second {at + 1}", cancellation);
            var n = data.Length >= 2 ? BinaryPrimitives.ReadUInt16BigEndian(data) : 0;
            if (n == 0 || data.Length != 2 + 4 * n) throw new LinkLostException("The unit's samples are not understood.");
            for (var k = 0; k < n; k++) samples.Add(new(BinaryPrimitives.ReadInt16BigEndian(data.AsSpan(2 + 4 * k)), BinaryPrimitives.ReadInt16BigEndian(data.AsSpan(4 + 4 * k))));
        }

        return samples;
    }

    private async Task<RoutineAnswer> Control(byte what, string word, Routine routine, CancellationToken cancellation)
    {
        byte[] request = [(byte)Service.Routine, what, (byte)((int)routine >> 8), (byte)routine];
        var answer = await Ask(request, $"{word}: {Words.Of(routine)}", cancellation);
        if (answer[0] == CarLink.Negative && answer.Length == 3)
        {
            // The session fell back while nobody was heard: it is opened again, and only then asked again.
            if (answer[2] is not (0x7E or 0x7F)) return RoutineAnswer.No(answer[2]);
            await Ask([(byte)Service.Session, 0x03], "Extended session", cancellation);
            answer = await Ask(request, $"{word}: {Words.Of(routine)}", cancellation);
            if (answer[0] == CarLink.Negative && answer.Length == 3) return RoutineAnswer.No(answer[2]);
        }

        if (answer.Length != 7 || answer[0] != 0x71 || !Enum.IsDefined((RoutineStatus)answer[4]) || !Enum.IsDefined((SideEnd)answer[5]) || !Enum.IsDefined((SideEnd)answer[6]))
            throw new LinkLostException("The unit's answer about its routine is not understood.");
        return new((RoutineStatus)answer[4], (SideEnd)answer[5], (SideEnd)answer[6], null);
    }

    private async Task<byte[]> Read(int identifier, string words, CancellationToken cancellation) =>
        (await Good([(byte)Service.Read, (byte)(identifier >> 8), (byte)identifier], words, cancellation))[3..];

    private async Task<byte[]> Good(byte[] request, string words, CancellationToken cancellation)
    {
        var answer = await Ask(request, words, cancellation);
        var least = request[0] == (byte)Service.Read ? 3 : 1;
        if (answer[0] != request[0] + CarLink.Positive || answer.Length < least)
            throw new LinkLostException(answer.Length == 3 && answer[0] == CarLink.Negative ? $"{words}: {CarLink.Refused(answer[2])}." : $"{words}: the answer is not understood.");
        return answer;
    }

    /// <summary>Sends one request and waits for its answer; 78 makes it wait longer. Nothing is sent twice.</summary>
    private async Task<byte[]> Ask(byte[] request, string words, CancellationToken cancellation)
    {
        await _one.WaitAsync(cancellation);
        try
        {
            // What came late belongs to nobody now.
            while (_answers.Reader.TryRead(out _))
            {
            }

            await Write(Doip.Message(Doip.TesterAddress, Doip.UnitAddress, request), words, cancellation);
            for (var within = P2; ;)
            {
                var message = await Next(within, cancellation);
                if (message.Type == DoipType.MessageRefused) throw new LinkLostException($"{words}: the car's gateway refuses the message.");
                if (message.Type != DoipType.Message || message.Payload.Length < 5) continue;
                var data = message.Payload[4..];
                var mine = Answers(data, request) || (data[0] == CarLink.Negative && data.Length == 3 && data[1] == request[0]);
                if (!mine) continue;
                var pending = data[0] == CarLink.Negative && data[2] == CarLink.Pending;
                Log(false, message, data[0] != CarLink.Negative ? $"{words}: answered" : pending ? "Wait" : $"{words}: {CarLink.Refused(data[2])}");
                if (!pending) return data;
                within = P2Star;
            }
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>True of a positive answer to this very request: it repeats what was asked, so that one that comes late is no other's.</summary>
    private static bool Answers(ReadOnlySpan<byte> answer, ReadOnlySpan<byte> request)
    {
        if (answer[0] != request[0] + CarLink.Positive) return false;
        var repeats = (Service)request[0] switch { Service.Routine => 3, Service.Read => 2, Service.ReadCodes or Service.Session => 1, _ => 0 };
        return answer.Length > repeats && answer.Slice(1, repeats).SequenceEqual(request.Slice(1, repeats));
    }

    private async Task<DoipMessage> Next(TimeSpan within, CancellationToken cancellation)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(cancellation, _closing.Token);
        limit.CancelAfter(within);
        try
        {
            return await _answers.Reader.ReadAsync(limit.Token);
        }
        catch (Exception e) when (e is OperationCanceledException or ChannelClosedException)
        {
            cancellation.ThrowIfCancellationRequested();
            throw new LinkLostException($"The car at {Name} does not answer.", e);
        }
    }

    private async Task Write(byte[] frame, string words, CancellationToken cancellation)
    {
        await _writing.WaitAsync(cancellation);
        try
        {
            await _client.GetStream().WriteAsync(frame, cancellation);
        }
        catch (Exception e) when (e is IOException or InvalidOperationException)
        {
            throw new LinkLostException($"The link to {Name} is lost.", e);
        }
        finally
        {
            _writing.Release();
        }

        if (words.Length > 0) _log(new(_clock.GetLocalNow(), true, Convert.ToHexString(frame), words, words == StateWords));
    }

    /// <summary>Reads what comes, answers the car's own question at any time, and ends when the socket does.</summary>
    private async Task ReadAll()
    {
        try
        {
            var stream = _client.GetStream();
            var header = new byte[Doip.HeaderBytes];
            while (true)
            {
                await stream.ReadExactlyAsync(header, _closing.Token);
                if (Doip.Header(header, out var type, out var length) is not null) break;
                var payload = new byte[length];
                await stream.ReadExactlyAsync(payload, _closing.Token);
                if (type == DoipType.AliveCheck)
                {
                    var here = new byte[2];
                    BinaryPrimitives.WriteUInt16BigEndian(here, Doip.TesterAddress);
                    await Write(Doip.Frame(DoipType.AliveCheckAnswer, here), "Still here", _closing.Token);
                }
                else if (type is not DoipType.MessageTaken) _answers.Writer.TryWrite(new(type, payload));
            }
        }
        catch (Exception e) when (e is IOException or SocketException or OperationCanceledException or ObjectDisposedException or InvalidOperationException or LinkLostException)
        {
            // Gone, or closed here. Whoever waits is told below.
        }

        _answers.Writer.TryComplete();
    }

    private async Task SayPresent()
    {
        try
        {
            while (true)
            {
                await Task.Delay(PresentEvery, _clock, _closing.Token);
                await Write(Doip.Message(Doip.TesterAddress, Doip.UnitAddress, [(byte)Service.TesterPresent, 0x80]), "", _closing.Token);
            }
        }
        catch (Exception e) when (e is OperationCanceledException or LinkLostException)
        {
            // The link ended; requests find out by themselves.
        }
    }

    private void Log(bool sent, DoipMessage message, string words) => _log(new(_clock.GetLocalNow(), sent, Convert.ToHexString(Doip.Frame(message.Type, message.Payload)), words, words.StartsWith(StateWords, StringComparison.Ordinal)));

    private static string Activation(byte code) => code switch
    {
        0x00 => "it does not know this tool",
        0x01 => "all of its sockets are taken",
        0x02 => "this socket is another tool's",
        0x03 => "another tool speaks with it",
        0x06 => "it does not speak in this way",
        _ => "no reason given",
    };

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        await _closing.CancelAsync();
        _client.Dispose();
        await Task.WhenAll(_reading, _present);
        _closing.Dispose();
    }
}
