using QRCoder;

namespace PatientPawl.Web.Hosting;

/// <summary>An address as a square to point a camera at (ISO/IEC 18004, level M).</summary>
internal static class AddressCode
{
    private const string Dark = "#12211d", Light = "#ffffff";

    /// <summary>As a drawing that fits whatever room it is given.</summary>
    public static string Svg(string address)
    {
        using var made = Made(address);
        return new SvgQRCode(made).GetGraphic(4, Dark, Light, true, SvgQRCode.SizingMode.ViewBoxAttribute);
    }

    /// <summary>As rows of squares, dark where true.</summary>
    public static QRCodeData Made(string address) => QRCodeGenerator.GenerateQrCode(address, QRCodeGenerator.ECCLevel.M);
}
