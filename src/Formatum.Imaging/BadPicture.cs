namespace Formatum.Imaging;

/// <summary>A file that cannot be taken for a picture; the message says why and what to do.</summary>
public sealed class BadPicture : Exception
{
    public BadPicture(string message) : base(message) { }
    public BadPicture(string message, Exception cause) : base(message, cause) { }
}
