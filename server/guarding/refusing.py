"""A refusal in the API's own shape, for what is refused before the API is reached."""

from django.http import JsonResponse


def refused(status: int, message: str, field: str = "") -> JsonResponse:
    return JsonResponse({"error": {"field": field, "message": message}}, status=status)
