using System.Diagnostics;
using System.Net;
using System.Net.Sockets;

namespace PatientPawl.Web.Tests;

/// <summary>The server as a process of its own, on a free port.</summary>
internal static class ServerProcess
{
    public static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    public static Process Run(params string[] args)
    {
        var info = new ProcessStartInfo("dotnet") { RedirectStandardError = true, RedirectStandardOutput = true };
        info.ArgumentList.Add(Path.Combine(AppContext.BaseDirectory, "PatientPawl.Web.dll"));
        foreach (var arg in args) info.ArgumentList.Add(arg);
        return Process.Start(info)!;
    }

    public static async Task<HttpClient> Ready(int port, CookieContainer? cookies = null)
    {
        var handler = new SocketsHttpHandler { CookieContainer = cookies ?? new CookieContainer() };
        // Long enough for a machine whose disk is kept busy by others: it is here to end what hangs.
        var client = new HttpClient(handler) { BaseAddress = new Uri($"http://127.0.0.1:{port}"), Timeout = TimeSpan.FromSeconds(60) };
        for (var i = 0; i < 300; i++)
        {
            try
            {
                if ((await client.GetAsync("/healthz")).IsSuccessStatusCode) return client;
            }
            catch (HttpRequestException)
            {
                // Not listening yet.
            }

            await Task.Delay(200);
        }

        throw new TimeoutException("The server did not come up.");
    }
}
